/** The other form of the live host, with or without www, which a brief may or may not name. */
import { describe, expect, it } from 'vitest';
import type { Brief } from '#core/facts/brief';
import type { HostEvidence } from '#core/facts/evidence';
import { unreachedBy } from '#core/score/reached';
import { ask, brief, brokenChain, dnsAnswer, evidence, host } from '#core/checks/example-evidence';

const WWW = 'www.marsh-choir.example';
const { otherHosts: _, ...SILENT } = brief();
const NO_NAME = {
  http: brokenChain(`http://${WWW}/`, 'no-name', `${WWW} does not exist (NXDOMAIN)`),
  https: brokenChain(`https://${WWW}/`, 'no-name', `${WWW} does not exist (NXDOMAIN)`),
  addresses: [],
  tls: { host: WWW, chain: [], trusted: false, error: { code: 'no-name' as const, message: 'no name' } },
};

/** The site whose brief does not name www; the audit looked at it all the same. */
function withImplied(more: Partial<HostEvidence>) {
  const e = evidence({ hosts: [host('marsh-choir.example'), host(WWW, { role: 'implied', ...more })] });
  e.target.hosts = ['marsh-choir.example'];
  if (more.addresses?.length === 0)
    e.dns.answers = e.dns.answers.map((a) =>
      a.name === WWW ? dnsAnswer(WWW, a.type, [], { rcode: 'NXDOMAIN' }) : a,
    );
  return e;
}
const judged = (check: string, more: Partial<HostEvidence>, of: Brief = SILENT) =>
  ask(check, { evidence: withImplied(more), brief: of });

describe('a host that the brief does not name', () => {
  it.each<[string, Partial<HostEvidence>, Record<string, string>]>([
    [
      'without an address fails both-hosts alone',
      NO_NAME,
      { 'domain.both-hosts': 'failed', 'domain.resolves': 'passed', 'https.answers': 'passed' },
    ],
    [
      'that has an address and is broken is judged as a host of the site',
      { https: brokenChain(`https://${WWW}/`, 'refused'), http: brokenChain(`http://${WWW}/`, 'refused') },
      { 'domain.resolves': 'passed', 'https.answers': 'failed' },
    ],
    ['that leads to the site is well', {}, { 'domain.both-hosts': 'passed', 'https.answers': 'passed' }],
  ])('%s', (_name, more, outcomes) => {
    for (const [check, outcome] of Object.entries(outcomes))
      expect(judged(check, more).outcome, check).toBe(outcome);
  });
  it('and says that it is not used: not asked for', () => {
    const found = judged('domain.both-hosts', NO_NAME, { ...SILENT, unusedHosts: [WWW] });
    expect(found).toMatchObject({
      outcome: 'inapplicable',
      reason: `the brief says that ${WWW} is not used`,
    });
  });
});

describe('a host that came into the brief after the audit', () => {
  it.each(['domain.resolves', 'https.answers', 'https.certificate-names'])('%s: audit again', (check) => {
    const found = ask(check, {
      evidence: evidence(),
      brief: { ...brief(), otherHosts: [WWW, 'choir.example'] },
    });
    expect(found.outcome).toBe('cantTell');
    expect(JSON.stringify(found)).toContain('audit again');
  });
});

describe('whether anything of a site was reached', () => {
  const broken = (code: 'no-name' | 'refused') => {
    const e = evidence();
    const gone = brokenChain('https://marsh-choir.example/', code, `why: ${code}`);
    e.pages = [{ ...e.pages[0]!, chain: gone, facts: undefined }];
    e.hosts = [host('marsh-choir.example', { http: gone, https: gone })];
    return e;
  };
  it.each([
    ['a name that does not exist', broken('no-name'), 'why: no-name'],
    ['nobody listening', broken('refused'), 'why: refused'],
    ['a page', evidence(), undefined],
  ])('%s', (_name, e, reason) => {
    expect(unreachedBy(e)).toBe(reason);
  });
});
