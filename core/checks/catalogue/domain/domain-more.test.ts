/** Records, name servers, mail and registration. */
import { describe, expect, it } from 'vitest';
import type { Brief } from '#core/facts/brief';
import type { AddressEvidence, DnsAnswer, Evidence, RegistrationEvidence } from '#core/facts/evidence';
import {
  ask,
  AT,
  brief,
  brokenChain,
  chain,
  dnsAnswer,
  evidence,
  exchange,
  host,
} from '#core/checks/example-evidence';

const Z = 'marsh-choir.example';
/** Evidence with some answers in place of those to the same question. */
function withAnswers(...answers: DnsAnswer[]): Evidence {
  const e = evidence();
  const key = (a: DnsAnswer) => `${a.name} ${a.type}`;
  const replaced = new Set(answers.map(key));
  e.dns.answers = [...e.dns.answers.filter((a) => !replaced.has(key(a))), ...answers];
  return e;
}
const at = (n: number, name: string, type: string, values: string[], more: Partial<DnsAnswer> = {}) =>
  dnsAnswer(name, type, values, {
    role: 'authority',
    server: `203.0.113.5${n + 2}:53`,
    serverName: `ns${n}.registry.example`,
    authoritative: true,
    ...more,
  });
const out = (check: string, e: Evidence, b: Partial<Brief> = {}, more: object = {}) =>
  ask(check, { evidence: e, brief: { ...brief(), ...b }, ...more }).outcome;
const txt = (...values: string[]) => values.map((v) => `"${v}"`);
const mail: Partial<Brief> = { mail: 'yes' };

describe('domain.own', () => {
  const on = (url: string, profile?: object) => {
    const e = evidence();
    e.pages[0] = { ...e.pages[0]!, url };
    return ask('domain.own', { evidence: e, profile: { name: 'Fennel', ...profile } }).outcome;
  };
  it.each([
    ['https://marsh-choir.example/', 'passed'],
    ['https://choir.host.example/', 'passed'],
    ['https://choir.github.io/', 'failed'],
    ['https://choir.blogspot.com/', 'failed'],
    ['https://192.0.2.1/', 'failed'],
  ])('%s: %s (Public Suffix List, private part)', (url, outcome) => {
    expect(on(url)).toBe(outcome);
  });
  it('under the host’s own suffix', () => {
    expect(on('https://choir.fennel.example/', { sharedSuffixes: ['*.fennel.example'] })).toBe('failed');
    expect(on('https://choir.fennel.example/', { sharedSuffixes: ['nel.example'] })).toBe('passed');
  });
});

describe('domain.forwarding', () => {
  const judged = (hops: string[], status = 301) =>
    ask('domain.forwarding', {
      evidence: evidence({
        hosts: [host(Z), host(`www.${Z}`, { https: chain(hops, 200, undefined, status) })],
      }),
      brief: { ...brief(), reachedBy: 'forwarding' },
    }).outcome;
  const www = `https://www.${Z}/`;
  it('permanent, to the preferred host, over https', () => {
    expect([
      judged([www, `https://${Z}/`]),
      judged([www, `https://${Z}/`], 308),
      judged([www, `https://${Z}/`], 302),
      judged([www, `http://${Z}/`]),
      judged([www, 'https://elsewhere.example/']),
      judged([www]),
    ]).toEqual(['passed', 'passed', 'failed', 'failed', 'failed', 'failed']);
  });
  it('inapplicable when reached by records, untested when nothing is said', () => {
    expect(out('domain.forwarding', evidence(), { reachedBy: 'records' })).toBe('inapplicable');
    expect(out('domain.forwarding', evidence(), { records: undefined })).toBe('untested');
  });
});

describe('domain.no-stray-records', () => {
  it('an AAAA nobody expects', () => {
    expect(out('domain.no-stray-records', withAnswers(at(1, Z, 'AAAA', ['2001:db8::1'])))).toBe('failed');
  });
  it('a second A beside the right one; a wrong one alone is another check’s', () => {
    expect(out('domain.no-stray-records', withAnswers(at(1, Z, 'A', ['192.0.2.10', '192.0.2.99'])))).toBe(
      'failed',
    );
    expect(out('domain.no-stray-records', withAnswers(at(1, Z, 'A', ['192.0.2.99'])))).not.toBe('failed');
  });
  it('an HTTPS record counts, a TXT does not', () => {
    expect(out('domain.no-stray-records', withAnswers(at(1, Z, 'HTTPS', ['1 .'])))).toBe('failed');
    expect(out('domain.no-stray-records', withAnswers(at(1, Z, 'TXT', txt('anything'))))).toBe('passed');
  });
  it('an alias that the host flattens is no stray', () => {
    const e = withAnswers(
      at(1, `www.${Z}`, 'A', ['192.0.2.44']),
      at(1, `www.${Z}`, 'AAAA', []),
      at(1, `www.${Z}`, 'CNAME', []),
      dnsAnswer('edge.host.example', 'A', ['192.0.2.44', '192.0.2.45']),
    );
    expect(
      out('domain.no-stray-records', e, {
        records: [{ name: `www.${Z}`, type: 'CNAME', value: 'edge.host.example' }],
      }),
    ).toBe('passed');
  });
  it('a wildcard is said', () => {
    const e = withAnswers(dnsAnswer(`armband-x.${Z}`, 'A', ['192.0.2.10']));
    e.dns.randomLabel = 'armband-x';
    expect(ask('domain.no-stray-records', { evidence: e }).notes).toEqual([
      expect.stringContaining('wildcard') as string,
    ]);
  });
  it('forwarding makes it inapplicable', () => {
    expect(out('domain.no-stray-records', evidence(), { reachedBy: 'forwarding' })).toBe('inapplicable');
  });
});

describe('domain.every-address', () => {
  const address = (a: string, more: Partial<AddressEvidence> = {}): AddressEvidence => ({
    address: a,
    family: a.includes(':') ? 6 : 4,
    exchange: exchange(`https://${Z}/`, 200),
    title: 'Marsh Choir',
    tls: { trusted: true, names: [Z] },
    ...more,
  });
  const judged = (...addresses: AddressEvidence[]) =>
    out('domain.every-address', evidence({ hosts: [host(Z, { addresses })] }));
  const gone = (code: 'timeout' | 'refused' | 'no-address') => ({
    exchange: { ...exchange(`https://${Z}/`, 0), status: undefined, error: { code, message: code } },
    title: undefined,
  });
  it('the same site at each', () => {
    expect(judged(address('192.0.2.1'), address('192.0.2.2'))).toBe('passed');
  });
  it('another site at one', () => {
    expect(
      judged(address('192.0.2.1'), address('192.0.2.2'), address('192.0.2.3', { title: 'Old site' })),
    ).toBe('failed');
  });
  it('of two that differ, the one that visitors met is right', () => {
    const f = ask('domain.every-address', {
      evidence: evidence({
        hosts: [
          host(Z, { addresses: [address('192.0.2.10'), address('192.0.2.77', { title: 'Old site' })] }),
        ],
      }),
    });
    expect(f.places.find((p) => p.outcome === 'failed')!.place).toContain('192.0.2.77');
  });
  it('refused fails, silence and IPv6 without a way there cannot tell', () => {
    expect([
      judged(address('192.0.2.1'), address('192.0.2.2', gone('refused'))),
      judged(address('192.0.2.1'), address('192.0.2.2', gone('timeout'))),
      judged(address('192.0.2.1'), address('2001:db8::1', gone('no-address'))),
    ]).toEqual(['failed', 'cantTell', 'cantTell']);
  });
  it('a certificate that only one lacks', () => {
    expect(
      judged(
        address('192.0.2.1'),
        address('192.0.2.2', { tls: { trusted: false, trustError: 'CERT_HAS_EXPIRED', names: [] } }),
      ),
    ).toBe('failed');
  });
});

describe('domain.both-hosts', () => {
  const www = (more: Parameters<typeof host>[1]) =>
    out('domain.both-hosts', evidence({ hosts: [host(Z), host(`www.${Z}`, more)] }));
  it('a 404 at one fails, silence rests on another check', () => {
    expect([
      www({}),
      www({ https: chain([`https://www.${Z}/`], 404) }),
      www({ https: brokenChain('x', 'timeout'), http: brokenChain('x', 'timeout') }),
      www({ https: chain([`https://www.${Z}/`], 403) }),
    ]).toEqual(['passed', 'failed', 'cantTell', 'cantTell']);
  });
  it('another subdomain has no pair', () => {
    expect(out('domain.both-hosts', evidence(), { preferredHost: `app.${Z}` })).toBe('inapplicable');
  });
  it('a host that was not looked at cannot be told', () => {
    expect(out('domain.both-hosts', evidence({ hosts: [host(Z)] }))).toBe('cantTell');
  });
});

describe('aliases', () => {
  it('none at the zone’s own name (RFC 1034 3.6.2)', () => {
    expect(out('domain.no-apex-alias', withAnswers(at(1, Z, 'CNAME', ['edge.host.example'])))).toBe('failed');
    expect(out('domain.no-apex-alias', evidence())).toBe('passed');
  });
  it('beside a TXT of the same name, but not beside what it leads to', () => {
    const alias = at(1, `www.${Z}`, 'CNAME', [Z]);
    expect(out('domain.no-apex-alias', withAnswers(alias, at(1, `www.${Z}`, 'TXT', txt('x'))))).toBe(
      'failed',
    );
    expect(
      out(
        'domain.no-apex-alias',
        withAnswers(alias, {
          ...at(1, `www.${Z}`, 'A', []),
          records: [{ name: Z, type: 'A', ttl: 60, value: '192.0.2.1' }],
        }),
      ),
    ).toBe('passed');
  });
  it('none that leads into nothing', () => {
    const alias = dnsAnswer(`shop.${Z}`, 'CNAME', ['shop.host.example']);
    const target = (rcode: string, values: string[]) =>
      ['A', 'AAAA'].map((t, i) => dnsAnswer('shop.host.example', t, i ? [] : values, { rcode }));
    const judged = (...more: DnsAnswer[]) => out('domain.no-dangling-alias', withAnswers(alias, ...more));
    expect([
      judged(...target('NOERROR', ['192.0.2.1'])),
      judged(...target('NXDOMAIN', [])),
      judged(...target('NOERROR', [])),
      judged(...target('SERVFAIL', [])),
      judged(),
    ]).toEqual(['passed', 'failed', 'failed', 'cantTell', 'cantTell']);
    expect(out('domain.no-dangling-alias', evidence())).toBe('inapplicable');
  });
});

describe('name servers', () => {
  const servers = (change: (e: Evidence) => void, b: Partial<Brief> = {}) => {
    const e = evidence();
    change(e);
    return out('domain.name-servers', e, b);
  };
  it('two that answer with authority', () => {
    expect(servers(() => {})).toBe('passed');
  });
  it('one alone (RFC 1034 4.1), a lame one, a silent one, one without address, an alias (RFC 2181 10.3)', () => {
    expect([
      servers((e) => {
        e.dns.nameServers.pop();
      }),
      servers((e) => {
        for (const a of e.dns.answers)
          if (a.serverName === 'ns2.registry.example') {
            a.rcode = 'REFUSED';
            a.authoritative = false;
          }
      }),
      servers((e) => {
        for (const a of e.dns.answers) if (a.serverName === 'ns2.registry.example') a.rcode = 'NONE';
      }),
      servers((e) => {
        e.dns.nameServers[1]!.addresses = [];
      }),
      servers((e) => {
        e.dns.answers.push(dnsAnswer('ns2.registry.example', 'CNAME', ['x.example']));
      }),
    ]).toEqual(['failed', 'failed', 'failed', 'failed', 'failed']);
  });
  it('those of the brief, once the site is there; before a move the present ones may be others', () => {
    const named = { nameServers: ['NS1.registry.example.', 'ns3.registry.example'] };
    expect(servers(() => {}, named)).toBe('failed');
    expect(ask('domain.name-servers', { brief: { ...brief(), ...named }, situation: 'former' }).outcome).toBe(
      'passed',
    );
  });
  it('the zone above and the zone name the same, glue included', () => {
    const judged = (change: (e: Evidence) => void) => {
      const e = evidence();
      change(e);
      return out('domain.delegation-agrees', e);
    };
    const glue = (value: string) => (e: Evidence) => {
      e.dns.answers.find((a) => a.role === 'parent' && a.type === 'NS')!.additional = [
        { name: 'ns1.registry.example', type: 'A', ttl: 1, value },
      ];
      e.dns.answers.push(dnsAnswer('ns1.registry.example', 'A', ['203.0.113.53']));
    };
    expect([
      judged(() => {}),
      judged((e) => {
        e.dns.nameServers[1]!.namedBy = ['parent'];
      }),
      judged((e) => {
        e.dns.nameServers[1]!.namedBy = ['zone'];
      }),
      judged(glue('203.0.113.53')),
      judged(glue('203.0.113.99')),
      judged((e) => {
        e.dns.parent = null;
      }),
      judged((e) => {
        for (const a of e.dns.answers) if (a.role === 'parent') a.rcode = 'NONE';
      }),
    ]).toEqual(['passed', 'failed', 'failed', 'passed', 'failed', 'cantTell', 'cantTell']);
  });
  it('all say the same; within 48 hours of a change a difference is still spreading', () => {
    const differ = withAnswers(at(1, Z, 'MX', ['10 a.example']), at(2, Z, 'MX', ['10 b.example']));
    const days = (n: number) => new Date(AT.getTime() - n * 86_400_000).toISOString().slice(0, 10);
    expect([
      out('domain.authorities-agree', evidence()),
      out('domain.authorities-agree', differ),
      out('domain.authorities-agree', differ, { launchDate: days(1) }),
      out('domain.authorities-agree', differ, { launchDate: days(3) }),
      out(
        'domain.authorities-agree',
        withAnswers(
          at(1, Z, 'MX', ['10 a.example', '20 b.example']),
          at(2, Z, 'MX', ['20 B.example', '10 a.example']),
        ),
      ),
    ]).toEqual(['passed', 'failed', 'cantTell', 'failed', 'passed']);
    expect(
      out(
        'domain.authorities-agree',
        withAnswers(at(1, Z, 'SOA', ['a b 1 2 3 4 5']), at(2, Z, 'SOA', ['a b 9 2 3 4 5'])),
      ),
    ).toBe('passed');
  });
  it('times of the zone (RFC 1912 2.2, RFC 2308 5)', () => {
    const soa = (times: string) => out('domain.soa', withAnswers(at(1, Z, 'SOA', [`ns. host. 1 ${times}`])));
    expect([
      soa('7200 3600 1209600 86400'),
      soa('7200 3600 1209600 86401'),
      soa('3600 3600 1209600 60'),
      soa('7200 3600 7200 60'),
    ]).toEqual(['passed', 'failed', 'failed', 'failed']);
  });
});

describe('before the launch', () => {
  const moving: Partial<Brief> = { records: [{ name: Z, type: 'A', value: '192.0.2.200' }], mail: 'yes' };
  const inDays = (n: number) => new Date(AT.getTime() + n * 86_400_000).toISOString().slice(0, 10);
  const ttl = (seconds: number) => {
    const e = withAnswers(
      ...[1, 2].map((n) => ({
        ...at(n, Z, 'A', ['192.0.2.10']),
        records: [{ name: Z, type: 'A', ttl: seconds, value: '192.0.2.10' }],
      })),
    );
    return e;
  };
  const former = { situation: 'former' as const };
  it('domain.ttl-for-launch: looked at within three days, at most an hour', () => {
    expect([
      out('domain.ttl-for-launch', ttl(3600), { ...moving, launchDate: inDays(2) }, former),
      out('domain.ttl-for-launch', ttl(3601), { ...moving, launchDate: inDays(2) }, former),
      out('domain.ttl-for-launch', ttl(86_400), { ...moving, launchDate: inDays(9) }, former),
      out('domain.ttl-for-launch', ttl(86_400), moving, former),
      out('domain.ttl-for-launch', ttl(86_400), { launchDate: inDays(1) }, former),
    ]).toEqual(['passed', 'failed', 'inapplicable', 'untested', 'inapplicable']);
  });
  it('domain.mail-survives: nothing changes, the exchanger stays, or rests on what moves', () => {
    const mx = (value: string) => withAnswers(...[1, 2].map((n) => at(n, Z, 'MX', [value])));
    expect([
      out('domain.mail-survives', evidence(), mail, former),
      out('domain.mail-survives', mx(`10 mail.${Z}`), moving, former),
      out('domain.mail-survives', mx(`10 ${Z}`), moving, former),
      out('domain.mail-survives', mx(`10 ${Z}`), { ...moving, mail: 'none' }, former),
    ]).toEqual(['inapplicable', 'passed', 'failed', 'inapplicable']);
  });
  it('domain.mail-survives: a move of name servers takes every mail record along', () => {
    const away = { nameServers: ['ns1.new.example', 'ns2.new.example'], mail: 'yes' as const };
    const e = withAnswers(
      ...[1, 2].flatMap((n) => [
        at(n, Z, 'MX', [`10 mail.${Z}`]),
        at(n, Z, 'TXT', txt('v=spf1 mx -all')),
        at(n, `_dmarc.${Z}`, 'TXT', txt('v=DMARC1; p=none')),
      ]),
    );
    const all = [
      { name: Z, type: 'MX', value: `10 MAIL.${Z}.` },
      { name: Z, type: 'TXT', value: 'v=spf1 mx -all' },
      { name: `_dmarc.${Z}`, type: 'TXT', value: 'v=DMARC1; p=none' },
    ];
    expect(out('domain.mail-survives', e, { ...away, records: all }, former)).toBe('passed');
    for (let i = 0; i < all.length; i++)
      expect(
        out('domain.mail-survives', e, { ...away, records: all.filter((_, n) => n !== i) }, former),
      ).toBe('failed');
  });
  it('domain.ds-fits: a DS that the coming servers cannot answer for', () => {
    const away = { nameServers: ['ns1.new.example'] };
    const ds = dnsAnswer(Z, 'DS', ['1 13 2 aa'], { role: 'parent' });
    const coming = (values: string[], rcode = 'NOERROR') =>
      dnsAnswer(Z, 'DNSKEY', values, { role: 'coming', serverName: 'ns1.new.example', rcode });
    expect([
      out('domain.ds-fits', evidence(), {}, former),
      out('domain.ds-fits', evidence(), away, former),
      out('domain.ds-fits', withAnswers(ds), away, former),
      out('domain.ds-fits', withAnswers(ds, coming([])), away, former),
      out('domain.ds-fits', withAnswers(ds, coming(['257 3 13 AA'])), away, former),
      out('domain.ds-fits', withAnswers(ds, coming([], 'NONE')), away, former),
    ]).toEqual(['inapplicable', 'passed', 'cantTell', 'failed', 'passed', 'cantTell']);
  });
});

describe('mail', () => {
  it('domain.mail-exchanger (RFC 5321 5.1, RFC 7505)', () => {
    const mx = (values: string[], rcode = 'NOERROR') =>
      out('domain.mail-exchanger', withAnswers(dnsAnswer(Z, 'MX', values, { rcode })));
    expect([mx(['10 mail.a.example']), mx(['0 .']), mx([]), mx([], 'SERVFAIL')]).toEqual([
      'passed',
      'failed',
      'cantTell',
      'cantTell',
    ]);
    expect(
      out('domain.mail-exchanger', withAnswers(dnsAnswer('gone.example', 'MX', [], { rcode: 'NXDOMAIN' })), {
        contactEmail: 'a@gone.example',
      }),
    ).toBe('failed');
  });
  it('domain.mail-targets (RFC 2181 10.3)', () => {
    const judged = (...more: DnsAnswer[]) =>
      out('domain.mail-targets', withAnswers(at(1, Z, 'MX', ['10 mail.a.example']), ...more));
    expect([
      judged(dnsAnswer('mail.a.example', 'A', ['192.0.2.1'])),
      judged(dnsAnswer('mail.a.example', 'A', []), dnsAnswer('mail.a.example', 'AAAA', [])),
      judged(dnsAnswer('mail.a.example', 'CNAME', ['b.example'])),
      judged(),
    ]).toEqual(['passed', 'failed', 'failed', 'cantTell']);
  });
  it('domain.spf (RFC 7208)', () => {
    const spf = (...values: string[]) =>
      out(
        'domain.spf',
        withAnswers(at(1, Z, 'TXT', txt(...values)), at(1, Z, 'MX', ['10 mail.a.example'])),
        mail,
      );
    expect([
      spf('v=spf1 mx -all'),
      spf('v=spf1 ip4:192.0.2.1 ~all'),
      spf('v=spf1 mx ?all'),
      spf('v=spf1 +all'),
      spf('v=spf1 mx'),
      spf('v=spf1 redirect=_spf.gone.example'),
      spf(),
      spf('v=spf1 -all', 'v=spf1 mx -all'),
      spf('v=spf1 mxx -all'),
      spf(`v=spf1 ${Array.from({ length: 11 }, (_, i) => `a:h${i}.example`).join(' ')} -all`),
    ]).toEqual([
      'passed',
      'passed',
      'failed',
      'failed',
      'failed',
      'cantTell',
      'failed',
      'failed',
      'failed',
      'failed',
    ]);
    expect([out('domain.spf', evidence(), { mail: 'none' }), out('domain.spf', evidence())]).toEqual([
      'inapplicable',
      'untested',
    ]);
  });
  it('domain.dkim (RFC 6376 3.6)', () => {
    const key = (...values: string[]) =>
      out('domain.dkim', withAnswers(at(1, `s1._domainkey.${Z}`, 'TXT', txt(...values))), {
        dkimSelectors: ['s1'],
      });
    const good = `v=DKIM1; k=rsa; p=${'MIIB'.padEnd(392, 'A')}`;
    expect([
      key(good),
      key('v=DKIM1; p='),
      key(),
      key(good, good),
      key('v=DKIM1; p=!!'),
      out('domain.dkim', evidence(), { dkimSelectors: ['s1'] }),
    ]).toEqual(['passed', 'failed', 'failed', 'failed', 'failed', 'cantTell']);
  });
  it('domain.dmarc (RFC 7489)', () => {
    const d = (...values: string[]) =>
      ask('domain.dmarc', {
        evidence: withAnswers(at(1, `_dmarc.${Z}`, 'TXT', txt(...values))),
        brief: { ...brief(), mail: 'yes' },
      });
    expect([
      d('v=DMARC1; p=none').outcome,
      d('v=DMARC1; rua=mailto:a@b.example').outcome,
      d('v=DMARC1').outcome,
      d().outcome,
      d('v=DMARC1; p=none', 'v=DMARC1; p=reject').outcome,
    ]).toEqual(['passed', 'passed', 'failed', 'failed', 'failed']);
    expect(d('v=DMARC1; rua=mailto:a@b.example').notes).toHaveLength(1);
  });
  it('domain.no-mail-closed (RFC 7505)', () => {
    const closed = (mx: string[], spf: string[], dmarc: string[]) =>
      out(
        'domain.no-mail-closed',
        withAnswers(
          at(1, Z, 'MX', mx),
          at(1, Z, 'TXT', txt(...spf)),
          at(1, `_dmarc.${Z}`, 'TXT', txt(...dmarc)),
        ),
        { mail: 'none' },
      );
    expect([
      closed(['0 .'], ['v=spf1 -all'], ['v=DMARC1; p=reject']),
      closed([], ['v=spf1 -all'], ['v=DMARC1; p=reject']),
      closed(['0 .'], ['v=spf1 mx -all'], ['v=DMARC1; p=reject']),
      closed(['0 .'], ['v=spf1 -all'], ['v=DMARC1; p=none']),
    ]).toEqual(['passed', 'failed', 'failed', 'failed']);
  });
});

describe('domain.caa (RFC 8659)', () => {
  const caa = (name: string, ...values: string[]) => at(1, name, 'CAA', values);
  const judged = (issuer: string | undefined, ...answers: DnsAnswer[]) =>
    ask('domain.caa', { evidence: withAnswers(...answers), profile: { name: 'F', issuer } }).outcome;
  it('the host’s issuer may, or may not, or is not known', () => {
    expect([
      judged('ca.example', caa(Z, '0 issue "ca.example"')),
      judged('ca.example', caa(Z, '0 issue "other.example"')),
      judged(undefined, caa(Z, '0 issue "ca.example"')),
      judged('ca.example', caa(Z, '0 issue ";"')),
      judged('ca.example', caa(Z, '0 iodef "mailto:a@b.example"')),
    ]).toEqual(['passed', 'failed', 'cantTell', 'failed', 'passed']);
  });
  it('the nearest set counts: that of the host before that of the zone', () => {
    expect(
      judged('ca.example', caa(Z, '0 issue "other.example"'), caa(`www.${Z}`, '0 issue "ca.example"')),
    ).toBe('failed');
    expect(
      ask('domain.caa', {
        evidence: withAnswers(caa(Z, '0 issue "other.example"'), caa(`www.${Z}`, '0 issue "ca.example"')),
        profile: { name: 'F', issuer: 'ca.example' },
      }).places.map((p) => p.outcome),
    ).toEqual(['failed', 'passed']);
  });
  it('no record, nobody is shut out', () => {
    expect(judged('ca.example', caa(Z), caa(`www.${Z}`), caa('example'))).toBe('inapplicable');
  });
});

describe('registration', () => {
  const r = (more: Partial<RegistrationEvidence>) =>
    evidence({ registration: { ...evidence().registration!, ...more } });
  it('domain.registration-lock (RFC 8056)', () => {
    expect([
      out('domain.registration-lock', r({ status: ['server transfer prohibited'] })),
      out('domain.registration-lock', r({ status: ['active'] })),
      out(
        'domain.registration-lock',
        r({ status: ['active'] }),
        { registrationPlan: 'transfer to Gullwing' },
        { situation: 'former' },
      ),
      out('domain.registration-lock', r({ served: false })),
      out('domain.registration-lock', r({ error: 'down' })),
    ]).toEqual(['passed', 'failed', 'passed', 'inapplicable', 'cantTell']);
  });
  it('domain.registrar', () => {
    expect([
      out('domain.registrar', r({ registrar: 'GULLWING NAMES, Ltd.' }), { registrar: 'Gullwing Names' }),
      out('domain.registrar', r({ registrar: 'Cormorant' }), { registrar: 'Gullwing Names' }),
      out('domain.registrar', r({ registrar: undefined }), { registrar: 'Gullwing Names' }),
      out('domain.registrar', evidence()),
    ]).toEqual(['passed', 'failed', 'cantTell', 'untested']);
  });
  it('domain.signed (RFC 4035)', () => {
    const ds = dnsAnswer(Z, 'DS', ['1 13 2 aa'], { role: 'parent' });
    const soa = (rcode: string, more: Partial<DnsAnswer> = {}) =>
      dnsAnswer(Z, 'SOA', rcode === 'NOERROR' ? ['a b 1 2 3 4 5'] : [], { rcode, ...more });
    expect([
      out('domain.signed', evidence()),
      out('domain.signed', withAnswers(ds, soa('NOERROR', { authenticated: true }))),
      out('domain.signed', withAnswers(ds, soa('NOERROR'))),
      out('domain.signed', withAnswers(ds, soa('SERVFAIL'), soa('NOERROR', { unchecked: true }))),
      out('domain.signed', withAnswers(ds, soa('SERVFAIL'), soa('SERVFAIL', { unchecked: true }))),
    ]).toEqual(['inapplicable', 'passed', 'cantTell', 'failed', 'cantTell']);
  });
});
