import { describe, expect, it } from 'vitest';
import { evidence, page, withPages } from '#core/checks/example-evidence';
import { learnDefaults } from './learn-defaults';

describe('what an untouched site of a host teaches', () => {
  const e = withPages(
    page({
      url: 'https://sample.host.example/',
      via: 'home',
      title: 'First stone – My site',
      description: 'Built on Cairn',
      head: '<meta name="author" content="mason">',
      body: '<h2>Welcome to your new site</h2><h2>News</h2><form action="/send"><input type="hidden" name="from" value="noreply@cairn-draft.example"><input name="text"></form>',
    }),
  );
  const withIcon = {
    ...e,
    assets: evidence().assets.map((a) => (a.roles.includes('icon') ? { ...a, sha256: 'ab12' } : a)),
  };
  const of = (profile = {}) =>
    Object.fromEntries(
      learnDefaults(withIcon, { name: 'Cairn', ...profile }).map((l) => [l.field, l.values]),
    );
  it('titles whole and in parts, descriptions, texts of several words, people, senders, icons', () => {
    const learnt = of();
    expect(learnt.titles).toEqual(
      expect.arrayContaining(['First stone – My site', 'First stone', 'My site']),
    );
    expect(learnt.taglines).toContain('Built on Cairn');
    expect(learnt.texts).toContain('Welcome to your new site');
    expect(learnt.texts).not.toContain('News');
    expect(learnt.authors).toEqual(['mason']);
    expect(learnt.formSenders).toEqual(['noreply@cairn-draft.example']);
    expect(learnt.iconHashes).toEqual(['ab12']);
  });
  it('leaves out what the profile has already', () => {
    const learnt = of({ defaults: { titles: ['First stone'], authors: ['mason'] } });
    expect(learnt.titles).not.toContain('First stone');
    expect(learnt.authors).toBeUndefined();
  });
});
