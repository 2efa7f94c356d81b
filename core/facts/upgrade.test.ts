import { describe, expect, it } from 'vitest';
import { ask, evidence } from '#core/checks/example-evidence';
import { upgradeEvidence } from './upgrade';

/** Evidence as version 1 had it: without everything that came later. */
function versionOne(): Record<string, unknown> {
  const e = JSON.parse(JSON.stringify(evidence())) as ReturnType<typeof evidence> & Record<string, unknown>;
  for (const key of ['links', 'folders', 'former', 'variants', 'freshness', 'manifest', 'bypass'])
    Reflect.deleteProperty(e, key);
  for (const h of e.hosts) {
    delete (h as Partial<typeof h>).addresses;
    for (const c of h.tls.chain) delete (c as Partial<typeof c>).signature;
  }
  for (const p of e.pages)
    for (const key of ['bylines', 'unnamed', 'hidden'] as const) Reflect.deleteProperty(p.facts!, key);
  for (const s of e.dns.nameServers) delete (s as Partial<typeof s>).namedBy;
  delete (e.dns as Partial<typeof e.dns>).parent;
  delete (e.dns as Partial<typeof e.dns>).randomLabel;
  return { ...e, version: 1 };
}

describe('old evidence', () => {
  describe('is read as this version has it, with nothing made up', () => {
    const e = upgradeEvidence(versionOne());
    it.each([
      ['e.version', () => e.version, 2],
      ['e.links', () => e.links, []],
      ['e.former', () => e.former, []],
      ['e.variants', () => e.variants, []],
      ['e.freshness', () => e.freshness, []],
      ['e.manifest', () => e.manifest, null],
      ['e.hosts[0]!.addresses', () => e.hosts[0]!.addresses, []],
      ['e.pages[0]!.facts!.hidden', () => e.pages[0]!.facts!.hidden, []],
    ])('%s', (_, judged, wanted) => {
      expect(judged()).toEqual(wanted);
    });
  });
  it('is judged as before', () => {
    for (const check of ['metadata.title-unique', 'https.certificate-days', 'domain.records-match'])
      expect(ask(check, { evidence: upgradeEvidence(versionOne()) }).outcome).toBe('passed');
  });
  it('of this version is left as it is', () => {
    const e = evidence();
    expect(upgradeEvidence(e)).toBe(e);
  });
  it.each([
    [null, 'no evidence'],
    [{ version: 1 }, 'no evidence'],
    [{ ...evidence(), version: 99 }, 'version 99'],
  ])('refuses what it cannot read (%#)', (data, why) => {
    expect(() => upgradeEvidence(data)).toThrow(why);
  });
});
