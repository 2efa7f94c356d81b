import { describe, expect, it } from 'vitest';
import { brokenChain, evidence, page, withHome, withPages } from '#core/checks/example-evidence';
import type { Evidence } from '#core/facts/evidence';
import { proposeBrief } from './propose-brief';

const shown = (e: Evidence) => Object.fromEntries(proposeBrief(e).map((p) => [p.field, p.shown]));
const home = 'https://marsh-choir.example/';

describe('what a site says of itself', () => {
  it('name and tagline from the title, the language, the address, the phone-less page, the host and its records', () => {
    expect(shown(evidence())).toMatchObject({
      name: 'Marsh Choir',
      tagline: 'songs by the water',
      languages: 'en-GB',
      contactEmail: 'hello@marsh-choir.example',
      preferredHost: 'marsh-choir.example',
      analyticsIds: 'TM-1',
      tokens: 'tide-site-verification abc',
    });
    expect(shown(evidence()).records).toBe(
      'marsh-choir.example A 192.0.2.10; www.marsh-choir.example A 192.0.2.10',
    );
  });
  describe('the name is the one that most things agree on', () => {
    const named = (head: string, titles: string[], url = home) => {
      const pages = titles.map((t, i) =>
        page({ url: i ? `${url}${i}/` : url, via: i ? 'link' : 'home', title: t, head: i ? '' : head }),
      );
      const e = { ...withPages(...pages), target: { ...evidence().target, url } };
      const found = proposeBrief(e).find((p) => p.field === 'name');
      return found && `${found.shown}, ${found.sure}`;
    };
    const OG = (name: string) => `<meta property="og:site_name" content="${name}">`;
    const LD = (name: string) =>
      `<script type="application/ld+json">{"@type":"Dentist","name":"${name}"}</script>`;
    it.each<[string, string, string[], string | undefined]>([
      ['og:site_name and JSON-LD', OG('Tide Mill') + LD('Tide Mill'), ['Home'], 'Tide Mill, sure'],
      [
        'what titles share',
        '',
        ['Bread – Tide Mill', 'Cakes – Tide Mill', 'Home – Tide Mill'],
        'Tide Mill, sure',
      ],
      ['one plain word of its own', OG('Tide Mill'), ['Home'], 'Tide Mill, likely'],
      ['the title and the domain', '', ['Marsh Choir'], 'Marsh Choir, sure'],
      ['a default title and nothing else', '', ['Home'], 'Marsh Choir, guess'],
      ['a filler', OG('Your Site Name'), ['Lorem ipsum'], 'Marsh Choir, guess'],
      ['a refusal', '', ['403 Forbidden'], 'Marsh Choir, guess'],
      ['a default beside a name', '', ['Home | Tide Mill'], 'Tide Mill, guess'],
    ])('%s', (_, head, titles, wanted) => {
      expect(named(head, titles)).toBe(wanted);
    });
  });
  it('name servers, mail, the other host, languages of alternates, required pages', () => {
    const e = withHome({
      head: '<link rel="alternate" hreflang="cy" href="/cy/"><link rel="alternate" hreflang="x-default" href="/">',
      body: '<a href="/privacy/">Privacy</a><a href="/kontakt/">Write to us</a><a href="/bread/">Bread</a>',
    });
    expect(shown(e)).toMatchObject({
      nameServers: 'ns1.registry.example, ns2.registry.example',
      mail: 'yes',
      otherHosts: 'www.marsh-choir.example',
      languages: 'en-GB, cy',
      requiredPages: '/privacy/, /kontakt/',
    });
  });
  it('nothing of the live host from an address before it', () => {
    const e = evidence();
    const fields = Object.keys(shown({ ...e, target: { ...e.target, kind: 'before' } }));
    for (const field of ['preferredHost', 'otherHosts', 'records', 'nameServers', 'mail'])
      expect(fields).not.toContain(field);
    expect(fields).toContain('name');
  });
  it('a phone link of any page, in E.164', () => {
    expect(
      shown(
        withPages(
          page({ url: home, via: 'home' }),
          page({ url: `${home}contact`, body: '<a href="tel:+44-1632-960222">call</a>' }),
        ),
      ).phone,
    ).toBe('+441632960222');
  });
  it('a tel link that cannot be decoded is passed over', () => {
    expect(() =>
      proposeBrief(withPages(page({ url: home, via: 'home', body: '<a href="tel:%E0%A4%A">x</a>' }))),
    ).not.toThrow();
  });
  it('each proposal says where it was seen, capped', () => {
    for (const p of proposeBrief(withHome({ title: `${'long '.repeat(200)}– x` }))) {
      expect(p.from.length).toBeGreaterThan(2);
      expect(p.from.length).toBeLessThanOrEqual(300);
      expect(p.shown.length).toBeLessThanOrEqual(300);
    }
  });
  it('nothing where the home page could not be read', () => {
    expect(
      proposeBrief(
        evidence({
          pages: [
            { ...page({ url: home, via: 'home' }), facts: undefined, chain: brokenChain(home, 'timeout') },
          ],
        }),
      ),
    ).toEqual([]);
  });
});
