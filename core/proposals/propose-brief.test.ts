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
  it('og:site_name before JSON-LD before the title', () => {
    const ld =
      '<script type="application/ld+json">{"@type":"Organization","name":"From JSON-LD","telephone":"+44 1632 960111"}</script>';
    expect(
      shown(withHome({ head: `<meta property="og:site_name" content="From Open Graph">${ld}` })).name,
    ).toBe('From Open Graph');
    expect(shown(withHome({ head: ld }))).toMatchObject({ name: 'From JSON-LD', phone: '+441632960111' });
    expect(shown(withHome({ title: 'Only a title' }))).toMatchObject({ name: 'Only a title' });
    expect(shown(withHome({ title: 'Only a title' })).tagline).toBeUndefined();
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
