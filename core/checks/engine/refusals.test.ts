/** Pages that refuse the visitor, and hosts that are not the site’s. */
import { describe, expect, it } from 'vitest';
import { ask, brokenChain, evidence, HOME as home, page, withPages } from '#core/checks/example-evidence';

describe('what refuses a visitor', () => {
  it('a challenge with 200 is no page: its titles are not judged', () => {
    const p = page({
      url: home,
      via: 'home',
      title: 'One moment, please',
      body: '<script src="/c.js"></script>',
    });
    p.facts = { ...p.facts!, text: 'Checking your browser before you go on', textLength: 38 };
    expect(ask('metadata.title-length', { evidence: withPages(p) })).toMatchObject({
      outcome: 'cantTell',
      reason: expect.stringContaining('proof of a person') as string,
    });
  });
  it('staging hosts beside the live one are no hosts of the site', () => {
    const e = evidence();
    e.hosts.push({
      ...e.hosts[0]!,
      host: 'draft.host.example',
      role: 'staging',
      https: brokenChain('https://draft.host.example/', 'refused'),
    });
    expect(ask('https.answers', { evidence: e }).outcome).toBe('passed');
  });
});
