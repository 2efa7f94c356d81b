/** Every recipe says what to do, whatever the brief holds and whatever the site says of itself. */
import { describe, expect, it } from 'vitest';
import type { Brief } from '#core/facts/brief';
import { verbatim } from '#core/facts/message';
import type { Finding } from '#core/facts/finding';
import type { CheckContext } from '#core/checks/kit/check';
import { AT, brief, evidence, withHome } from '#core/checks/example-evidence';
import { CATALOGUE } from './index';
import { SiteView } from '#core/checks/view/site-view';

const HOSTILE = '"></title><script>alert(1)</script>\n; evil.example. IN A 6.6.6.6';
/** A brief whose texts try to break out of what is pasted. */
const odd = (): Brief => ({ ...brief(), name: HOSTILE, tagline: HOSTILE, keyPhrases: [HOSTILE] });
const finding = (check: string): Finding => ({
  check,
  section: 'identity',
  title: '',
  fault: '',
  severity: 'minor',
  weight: 1,
  credit: null,
  outcome: 'failed',
  ...verbatim('x'),
  places: [
    {
      place: /^domain\.(?:no-stray|every-address|no-dangling)/.test(check)
        ? 'CNAME shop.marsh-choir.example 192.0.2.1'
        : 'https://marsh-choir.example/a/',
      outcome: 'failed',
      found: 'x',
      ...verbatim('x'),
      expected: 'https://marsh-choir.example/a/',
      raw: '<a href="http://marsh-choir.example/">',
    },
  ],
});
function context(b: Brief, description?: string): CheckContext {
  const e = description === undefined ? evidence() : withHome({ description });
  return {
    situation: 'live',
    at: AT,
    brief: b,
    profile: { name: 'Fennel' },
    evidence: e,
    view: new SiteView(e, b, { name: 'Fennel' }, 'live'),
    parameters: {},
    words: { unit: 'place', scope: 'site' },
    hosts: [],
  };
}
/** With its own parameters at their defaults. */
const parametersOf = (c: (typeof CATALOGUE)[number]) =>
  Object.fromEntries(Object.entries(c.parameters ?? {}).map(([k, v]) => [k, v.default]));

describe('the catalogue', () => {
  it('has each check once, each with why, source and situations', () => {
    expect(new Set(CATALOGUE.map((c) => c.id)).size).toBe(CATALOGUE.length);
    for (const c of CATALOGUE) {
      expect(c.id.startsWith(`${c.section}.`), c.id).toBe(true);
      expect(c.why.length, c.id).toBeGreaterThan(25);
      expect(c.source.length, c.id).toBeGreaterThan(3);
      expect(c.situations.length, c.id).toBeGreaterThan(0);
      expect(c.title, c.id).not.toMatch(/\.$/);
      for (const p of Object.values(c.parameters ?? {})) {
        expect(p.default, c.id).toBeGreaterThanOrEqual(p.min);
        expect(p.default, c.id).toBeLessThanOrEqual(p.max);
      }
    }
  });
  it('at least twenty of its rules are marked as common practice', () => {
    expect(CATALOGUE.filter((c) => c.source.includes('common practice')).length).toBeGreaterThan(20);
  });
});

describe('every recipe', () => {
  it.each(CATALOGUE.map((c) => [c.id, c] as const))('%s', (_, check) => {
    for (const b of [brief(), {}, odd()]) {
      const recipe = check.recipe({ ...context(b), parameters: parametersOf(check) }, finding(check.id));
      expect(recipe.steps.length).toBeGreaterThan(20);
      expect(recipe.steps).not.toMatch(/undefined|NaN|\[object/);
      for (const p of recipe.paste ?? []) {
        expect(p.label).not.toBe('');
        expect(p.text).not.toMatch(/undefined|NaN|\[object/);
        // a tag made of the brief's words stays one tag
        if (p.text.startsWith('<')) expect(p.text).not.toContain('<script>alert(1)');
      }
    }
  });
});
