/** Records behind aliases, and whose word counts where the brief is silent. */
import { describe, expect, it } from 'vitest';
import type { Brief } from '#core/facts/brief';
import type { DnsAnswer, Evidence } from '#core/facts/evidence';
import type { HostProfile } from '#core/facts/host-profile';
import { ask, brief, brokenChain, dnsAnswer, host, withAnswers } from '#core/checks/example-evidence';

const Z = 'marsh-choir.example';

/** Evidence with some answers in place of all to the same question. */

/** What a server of the zone says of an alias that leads out of it, and what a resolver finds behind it. */
function alias(name: string, type: string, target: string, values: string[], rcode = 'NOERROR'): DnsAnswer[] {
  const record = { name, type: 'CNAME', ttl: 3600, value: target };
  const behind = values.map((value) => ({ name: target, type, ttl: 3600, value }));
  return [
    dnsAnswer(name, type, [], { role: 'authority', authoritative: true, records: [record] }),
    dnsAnswer(name, type, [], { rcode, records: [record, ...behind] }),
  ];
}

const KEY = `"v=DKIM1; k=ed25519; p=${btoa('k'.repeat(32))}"`;

describe('a bare alias says nothing of what is behind it (RFC 1034 3.6.2)', () => {
  const asked = (check: string, answers: DnsAnswer[], b: Partial<Brief> = {}, profile?: HostProfile) =>
    ask(check, { evidence: withAnswers(...answers), brief: { ...brief(), ...b }, profile }).outcome;
  it.each<[string, string, DnsAnswer[], Partial<Brief>, string]>([
    [
      'DMARC at the provider',
      'domain.dmarc',
      alias(`_dmarc.${Z}`, 'TXT', 'choir.reports.example', ['"v=DMARC1; p=reject"']),
      {},
      'passed',
    ],
    [
      'DMARC missing at the provider',
      'domain.dmarc',
      alias(`_dmarc.${Z}`, 'TXT', 'choir.reports.example', []),
      {},
      'failed',
    ],
    [
      'a DKIM key at the provider',
      'domain.dkim',
      alias(`k1._domainkey.${Z}`, 'TXT', 'k1.mail.example', [KEY]),
      { dkimSelectors: ['k1'] },
      'passed',
    ],
    [
      'an address behind the alias',
      'domain.records-match',
      alias(`www.${Z}`, 'A', 'edge.host.example', ['192.0.2.10']),
      { records: [{ name: `www.${Z}`, type: 'A', value: '192.0.2.10' }] },
      'passed',
    ],
    [
      'another address behind the alias',
      'domain.records-match',
      alias(`www.${Z}`, 'A', 'edge.host.example', ['192.0.2.99']),
      { records: [{ name: `www.${Z}`, type: 'A', value: '192.0.2.10' }] },
      'failed',
    ],
  ])('%s', (_, check, answers, b, wanted) => {
    expect(asked(check, answers, b)).toBe(wanted);
  });
  it.each([
    ['another issuer than the host’s', ['0 issue "other.example"'], 'failed'],
    ['the host’s issuer', ['0 issue "ca.example"'], 'passed'],
  ])('CAA is looked up where the alias leads (RFC 8659 3): %s', (_, values, wanted) => {
    const answers = alias(`www.${Z}`, 'CAA', 'edge.host.example', values);
    expect(asked('domain.caa', answers, {}, { name: 'Fennel', issuer: 'ca.example' })).toBe(wanted);
  });
  it.each<[string, DnsAnswer[], string]>([
    ['its target has TXT', alias(`k1._domainkey.${Z}`, 'TXT', 'k1.mail.example', [KEY]), 'passed'],
    [
      'its target is gone',
      [
        ...alias(`k1._domainkey.${Z}`, 'TXT', 'k1.mail.example', [], 'NXDOMAIN'),
        dnsAnswer('k1.mail.example', 'A', [], { rcode: 'NXDOMAIN' }),
      ],
      'failed',
    ],
  ])('an alias of a service is no dangling one for want of an address: %s', (_, answers, wanted) => {
    const e = withAnswers(...answers, dnsAnswer('k1.mail.example', 'AAAA', []));
    expect(ask('domain.no-dangling-alias', { evidence: e }).outcome).toBe(wanted);
  });
});

describe('values as their types have them', () => {
  const matches = (type: string, wanted: string, served: string): string =>
    ask('domain.records-match', {
      evidence: withAnswers(dnsAnswer(`x.${Z}`, type, [served], { role: 'authority' })),
      brief: { ...brief(), records: [{ name: `x.${Z}`, type, value: wanted }] },
    }).outcome;
  it.each([
    ['HTTPS', '1 . alpn="h2,h3"', '1 . alpn=h2,h3', 'passed'],
    ['HTTPS', '1 . alpn=h3', '1 . alpn=h2', 'failed'],
    // RFC 3492 7.1 and IDNA: münchen is xn--mnchen-3ya
    ['CNAME', 'münchen.example.', 'xn--mnchen-3ya.example', 'passed'],
    ['CNAME', 'Edge.Host.Example', 'edge.host.example', 'passed'],
    ['MX', '10 post.münchen.example', '10 post.xn--mnchen-3ya.example', 'passed'],
    ['SRV', '0 5 443 münchen.example.', '0 5 443 xn--mnchen-3ya.example', 'passed'],
    ['CAA', '0 issue ca.example', '0 issue "ca.example"', 'passed'],
  ])('%s “%s”, served “%s”: %s', (type, wanted, served, outcome) => {
    expect(matches(type, wanted, served)).toBe(outcome);
  });
});

describe('SPF (RFC 7208)', () => {
  const judged = (text: string, ...more: DnsAnswer[]) =>
    ask('domain.spf', { evidence: withAnswers(dnsAnswer(Z, 'TXT', [`"${text}"`]), ...more) });
  const many = (n: number) => Array.from({ length: n }, (_, i) => `a:h${i}.${Z}`).join(' ');
  const found = (n: number) =>
    Array.from({ length: n }, (_, i) => dnsAnswer(`h${i}.${Z}`, 'A', ['192.0.2.1']));
  it('what stands after “all” is not counted (5.1)', () => {
    expect(judged(`v=spf1 mx -all ${many(11)}`, ...found(11)).outcome).toBe('passed');
    expect(judged(`v=spf1 mx ${many(11)} -all`, ...found(11)).outcome).toBe('failed');
  });
  it.each([
    [10, 'passed'],
    [11, 'failed'],
  ])('“mx” that leads to %i names: %s (4.6.4)', (names, wanted) => {
    const mx = Array.from({ length: names }, (_, i) => `10 h${i}.${Z}`);
    expect(judged('v=spf1 mx -all', dnsAnswer(Z, 'MX', mx), ...found(names)).outcome).toBe(wanted);
  });
  it.each([
    ['one term with a macro', 'v=spf1 exists:%{i}._spf.sender.example -all', 'passed'],
    [
      'three of them, each perhaps void',
      'v=spf1 exists:%{i}.a.example exists:%{i}.b.example exists:%{i}.c.example -all',
      'cantTell',
    ],
    ['an include with a macro', 'v=spf1 include:%{d}.sender.example -all', 'cantTell'],
  ])('%s', (_, text, wanted) => {
    expect(judged(text).outcome).toBe(wanted);
  });
});

describe('whether the domain has mail, where the brief does not say (rule 2)', () => {
  const mx = (...values: string[]) => dnsAnswer(Z, 'MX', values);
  const spf = dnsAnswer(Z, 'TXT', []);
  it.each<[string, DnsAnswer[], Partial<Brief>, string, string]>([
    ['its MX', [mx('10 mail.a.example'), spf], { contactEmail: undefined }, 'domain.spf', 'failed'],
    ['a null MX', [mx('0 .'), spf], { contactEmail: undefined }, 'domain.spf', 'inapplicable'],
    ['a null MX', [mx('0 .'), spf], { contactEmail: undefined }, 'domain.no-mail-closed', 'failed'],
    ['a contact address there', [mx(), spf], {}, 'domain.spf', 'failed'],
    ['a contact address elsewhere', [mx(), spf], { contactEmail: 'a@b.example' }, 'domain.spf', 'untested'],
    [
      'the brief, against the MX',
      [mx('10 mail.a.example'), spf],
      { mail: 'none' },
      'domain.spf',
      'inapplicable',
    ],
  ])('%s: %s', (_, answers, b, check, wanted) => {
    const judged = ask(check, { evidence: withAnswers(...answers), brief: { ...brief(), ...b } });
    expect(judged.outcome).toBe(wanted);
    if (wanted === 'failed') expect(judged.notes?.[0]).toContain('the brief does not say');
  });
});

describe('a zone whose signatures do not hold is charged once (rule 3)', () => {
  const broken = brokenChain(`https://${Z}/`, 'no-name', 'the resolver says SERVFAIL');
  broken.error!.code = 'dns';
  const servfail = (type: string, name = Z) => dnsAnswer(name, type, [], { rcode: 'SERVFAIL' });
  const e = withAnswers(
    dnsAnswer(Z, 'DS', ['257 13 2 AA'], { role: 'parent' }),
    servfail('SOA'),
    dnsAnswer(Z, 'SOA', ['ns1. h. 1 2 3 4 5'], { unchecked: true }),
    servfail('A'),
    servfail('A', `www.${Z}`),
  );
  const silent = { http: broken, https: broken, httpPath: broken, httpsPath: broken, landing: undefined };
  const tls = { host: Z, chain: [], trusted: false, error: broken.error };
  const bogus: Evidence = {
    ...e,
    hosts: [Z, `www.${Z}`].map((h) => host(h, { ...silent, tls })),
    pages: [{ ...e.pages[0]!, chain: broken, facts: undefined }],
  };
  it('domain.signed fails', () => {
    expect(ask('domain.signed', { evidence: bogus }).outcome).toBe('failed');
  });
  it.each(['domain.resolves', 'https.answers', 'https.hsts', 'domain.both-hosts', 'metadata.title-present'])(
    '%s rests on it',
    (check) => {
      expect(ask(check, { evidence: bogus })).toMatchObject({
        outcome: 'cantTell',
        reason: expect.stringContaining('rests on domain.signed') as string,
      });
    },
  );
});

describe('CAA says who and why (RFC 8659 4)', () => {
  const judged = (values: string[], names = ['marsh-choir.example']) => {
    const one = host(Z);
    const tls = { ...one.tls, chain: [{ ...one.tls.chain[0]!, names }] };
    return ask('domain.caa', {
      evidence: { ...withAnswers(dnsAnswer(Z, 'CAA', values)), hosts: [{ ...one, tls }] },
      profile: { name: 'Fennel', issuer: 'ca.example' },
    });
  };
  it.each<[string, string[], string[] | undefined, string]>([
    ['a critical tag', ['0 issue "ca.example"', '128 tbs "x"'], undefined, 'the critical tag “tbs”'],
    [
      'the wildcard',
      ['0 issue "ca.example"', '0 issuewild "other.example"'],
      ['*.example', Z],
      'issuewild lets only other.example',
    ],
    ['another issuer', ['0 issue "other.example"'], undefined, 'only other.example may issue'],
    ['nobody', ['0 issue ";"'], undefined, 'only nobody may issue'],
  ])('%s', (_, values, names, words) => {
    expect(judged(values, names).found).toContain(words);
  });
});
