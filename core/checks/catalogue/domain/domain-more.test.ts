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
  withAnswers,
} from '#core/checks/example-evidence';

const Z = 'marsh-choir.example';
/** Evidence with some answers in place of those to the same question. */
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
  describe('permanent, to the preferred host, over https', () => {
    it.each([
      ['www leads to it, for good', () => judged([www, `https://${Z}/`]), 'passed'],
      ['… by a 308', () => judged([www, `https://${Z}/`], 308), 'passed'],
      ['… for a while', () => judged([www, `https://${Z}/`], 302), 'failed'],
      ['… without HTTPS', () => judged([www, `http://${Z}/`]), 'failed'],
      ['… to another site', () => judged([www, 'https://elsewhere.example/']), 'failed'],
      ['www shows the site itself', () => judged([www]), 'failed'],
    ])('%s', (_, outcome, wanted) => {
      expect(outcome()).toBe(wanted);
    });
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
  describe('refused fails, silence and IPv6 without a way there cannot tell', () => {
    it.each([
      ["address('192.0.2.2', gone('refused'))", address('192.0.2.2', gone('refused')), 'failed'],
      ["address('192.0.2.2', gone('timeout'))", address('192.0.2.2', gone('timeout')), 'cantTell'],
      ["address('2001:db8::1', gone('no-address'))", address('2001:db8::1', gone('no-address')), 'cantTell'],
    ])('%s', (_, two, wanted) => {
      expect(judged(address('192.0.2.1'), two)).toBe(wanted);
    });
  });
  it('a handshake that broke off once cannot tell, though others were trusted', () => {
    const error = { code: 'reset' as const, message: 'the connection was reset' };
    expect(
      judged(address('192.0.2.1'), address('192.0.2.2', { tls: { trusted: false, names: [], error } })),
    ).toBe('cantTell');
  });
  it('a certificate for other names at one address', () => {
    expect(
      judged(
        address('192.0.2.1'),
        address('192.0.2.2', { tls: { trusted: true, names: ['other.example'] } }),
      ),
    ).toBe('failed');
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
  describe('a 404 at one fails, silence is the fault of another check, and stays shown', () => {
    it.each([
      ['{}', {}, 'passed'],
      [
        '{ https: chain([`https://www.${Z}/`], 404) }',
        { https: chain([`https://www.${Z}/`], 404) },
        'failed',
      ],
      [
        "{ https: brokenChain('x', 'timeout'), http: brokenChain('x', 'timeout'",
        { https: brokenChain('x', 'timeout'), http: brokenChain('x', 'timeout') },
        'cantTell',
      ],
      [
        '{ https: chain([`https://www.${Z}/`], 403) }',
        { https: chain([`https://www.${Z}/`], 403) },
        'cantTell',
      ],
    ])('%s', (_, more, wanted) => {
      expect(www(more)).toBe(wanted);
    });
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
  describe('none that leads into nothing', () => {
    const alias = dnsAnswer(`shop.${Z}`, 'CNAME', ['shop.host.example']);
    const target = (rcode: string, values: string[]) =>
      ['A', 'AAAA'].map((t, i) => dnsAnswer('shop.host.example', t, i ? [] : values, { rcode }));
    const judged = (...more: DnsAnswer[]) => out('domain.no-dangling-alias', withAnswers(alias, ...more));
    it.each([
      ['the target has an address', () => judged(...target('NOERROR', ['192.0.2.1'])), 'passed'],
      ['the target answers NXDOMAIN', () => judged(...target('NXDOMAIN', [])), 'failed'],
      ['the target has no address', () => judged(...target('NOERROR', [])), 'failed'],
      ['the target answers SERVFAIL', () => judged(...target('SERVFAIL', [])), 'cantTell'],
      ['none', () => judged(), 'cantTell'],
      ['a site with nothing of the kind', () => out('domain.no-dangling-alias', evidence()), 'inapplicable'],
    ])('%s', (_, outcome, wanted) => {
      expect(outcome()).toBe(wanted);
    });
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
  describe('one alone (RFC 1034 4.1), a lame one, a silent one, one without address, an alias (RFC 2181 10.3)', () => {
    it.each<[string, Parameters<typeof servers>[0], string]>([
      [
        '(e) => { e.dns.nameServers.pop(); }',
        (e) => {
          e.dns.nameServers.pop();
        },
        'failed',
      ],
      [
        "(e) => { for (const a of e.dns.answers) if (a.serverName === 'ns2.regi",
        (e) => {
          for (const a of e.dns.answers)
            if (a.serverName === 'ns2.registry.example') {
              a.rcode = 'REFUSED';
              a.authoritative = false;
            }
        },
        'failed',
      ],
      [
        "(e) => { for (const a of e.dns.answers) if (a.serverName === 'ns2.regi",
        (e) => {
          for (const a of e.dns.answers) if (a.serverName === 'ns2.registry.example') a.rcode = 'NONE';
        },
        'failed',
      ],
      [
        '(e) => { e.dns.nameServers[1]!.addresses = []; }',
        (e) => {
          e.dns.nameServers[1]!.addresses = [];
        },
        'failed',
      ],
      [
        "(e) => { e.dns.answers.push(dnsAnswer('ns2.registry.example', 'CNAME',",
        (e) => {
          e.dns.answers.push(dnsAnswer('ns2.registry.example', 'CNAME', ['x.example']));
        },
        'failed',
      ],
    ])('%s', (_, change, wanted) => {
      expect(servers(change)).toBe(wanted);
    });
  });
  it('those of the brief, once the site is there; before a move the present ones may be others', () => {
    const named = { nameServers: ['NS1.registry.example.', 'ns3.registry.example'] };
    expect(servers(() => {}, named)).toBe('failed');
    expect(ask('domain.name-servers', { brief: { ...brief(), ...named }, situation: 'former' }).outcome).toBe(
      'passed',
    );
  });
  describe('the zone above and the zone name the same, glue included', () => {
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
    it.each<[string, Parameters<typeof judged>[0], string]>([
      ['as it should be', () => {}, 'passed'],
      [
        "(e) => { e.dns.nameServers[1]!.namedBy = ['parent']; }",
        (e) => {
          e.dns.nameServers[1]!.namedBy = ['parent'];
        },
        'failed',
      ],
      [
        "(e) => { e.dns.nameServers[1]!.namedBy = ['zone']; }",
        (e) => {
          e.dns.nameServers[1]!.namedBy = ['zone'];
        },
        'failed',
      ],
      ["glue('203.0.113.53')", glue('203.0.113.53'), 'passed'],
      ["glue('203.0.113.99')", glue('203.0.113.99'), 'failed'],
      [
        '(e) => { e.dns.parent = null; }',
        (e) => {
          e.dns.parent = null;
        },
        'cantTell',
      ],
      [
        "(e) => { for (const a of e.dns.answers) if (a.role === 'parent') a.rco",
        (e) => {
          for (const a of e.dns.answers) if (a.role === 'parent') a.rcode = 'NONE';
        },
        'cantTell',
      ],
    ])('%s', (_, change, wanted) => {
      expect(judged(change)).toBe(wanted);
    });
  });
  describe('all say the same; within 48 hours of a change a difference is still spreading', () => {
    const differ = withAnswers(at(1, Z, 'MX', ['10 a.example']), at(2, Z, 'MX', ['10 b.example']));
    const days = (n: number) => new Date(AT.getTime() - n * 86_400_000).toISOString().slice(0, 10);
    it.each([
      ['evidence()', evidence(), undefined, 'passed'],
      ['differ', differ, undefined, 'failed'],
      ['differ, { launchDate: days(1) }', differ, { launchDate: days(1) }, 'cantTell'],
      ['differ, { launchDate: days(3) }', differ, { launchDate: days(3) }, 'failed'],
      [
        "withAnswers( at(1, Z, 'MX', ['10 a.example', '20 b.example']), at(2, Z",
        withAnswers(
          at(1, Z, 'MX', ['10 a.example', '20 b.example']),
          at(2, Z, 'MX', ['20 B.example', '10 a.example']),
        ),
        undefined,
        'passed',
      ],
      [
        "withAnswers(at(1, Z, 'SOA', ['a b 1 2 3 4 5']), at(2, Z, 'SOA', ['a b ",
        withAnswers(at(1, Z, 'SOA', ['a b 1 2 3 4 5']), at(2, Z, 'SOA', ['a b 9 2 3 4 5'])),
        undefined,
        'passed',
      ],
    ])('%s', (_, e, b, wanted) => {
      expect(out('domain.authorities-agree', e, b)).toBe(wanted);
    });
  });
  describe('times of the zone (RFC 1912 2.2, RFC 2308 5)', () => {
    const soa = (times: string) => out('domain.soa', withAnswers(at(1, Z, 'SOA', [`ns. host. 1 ${times}`])));
    it.each([
      ['7200 3600 1209600 86400', 'passed'],
      ['7200 3600 1209600 86401', 'failed'],
      ['3600 3600 1209600 60', 'failed'],
      ['7200 3600 7200 60', 'failed'],
    ])('%s: %s', (times, wanted) => {
      expect(soa(times)).toBe(wanted);
    });
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
  describe('domain.ttl-for-launch: looked at within three days, at most an hour', () => {
    it.each([
      [
        'ttl(3600), { ...moving, launchDate: inDays(2) }',
        ttl(3600),
        { ...moving, launchDate: inDays(2) },
        'passed',
      ],
      [
        'ttl(3601), { ...moving, launchDate: inDays(2) }',
        ttl(3601),
        { ...moving, launchDate: inDays(2) },
        'failed',
      ],
      [
        'ttl(86_400), { ...moving, launchDate: inDays(9) }',
        ttl(86_400),
        { ...moving, launchDate: inDays(9) },
        'inapplicable',
      ],
      ['ttl(86_400), moving', ttl(86_400), moving, 'untested'],
      ['ttl(86_400), { launchDate: inDays(1) }', ttl(86_400), { launchDate: inDays(1) }, 'inapplicable'],
    ])('%s', (_, e, b, wanted) => {
      expect(out('domain.ttl-for-launch', e, b, former)).toBe(wanted);
    });
  });
  describe('domain.mail-survives: nothing changes, the exchanger stays, or rests on what moves', () => {
    const mx = (value: string) => withAnswers(...[1, 2].map((n) => at(n, Z, 'MX', [value])));
    it.each<[string, Evidence, Partial<Brief>, string]>([
      ['evidence(), mail', evidence(), mail, 'inapplicable'],
      ['mx(`10 mail.${Z}`), moving', mx(`10 mail.${Z}`), moving, 'passed'],
      ['mx(`10 ${Z}`), moving', mx(`10 ${Z}`), moving, 'failed'],
      [
        "mx(`10 ${Z}`), { ...moving, mail: 'none' }",
        mx(`10 ${Z}`),
        { ...moving, mail: 'none' },
        'inapplicable',
      ],
    ])('%s', (_, e, b, wanted) => {
      expect(out('domain.mail-survives', e, b, former)).toBe(wanted);
    });
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
  describe('domain.ds-fits: a DS that the coming servers cannot answer for', () => {
    const away = { nameServers: ['ns1.new.example'] };
    const ds = dnsAnswer(Z, 'DS', ['1 13 2 aa'], { role: 'parent' });
    const coming = (values: string[], rcode = 'NOERROR') =>
      dnsAnswer(Z, 'DNSKEY', values, { role: 'coming', serverName: 'ns1.new.example', rcode });
    it.each([
      ['evidence(), {}', evidence(), {}, 'inapplicable'],
      ['evidence(), away', evidence(), away, 'passed'],
      ['withAnswers(ds), away', withAnswers(ds), away, 'cantTell'],
      ['withAnswers(ds, coming([])), away', withAnswers(ds, coming([])), away, 'failed'],
      [
        "withAnswers(ds, coming(['257 3 13 AA'])), away",
        withAnswers(ds, coming(['257 3 13 AA'])),
        away,
        'passed',
      ],
      ["withAnswers(ds, coming([], 'NONE')), away", withAnswers(ds, coming([], 'NONE')), away, 'cantTell'],
    ])('%s', (_, e, b, wanted) => {
      expect(out('domain.ds-fits', e, b, former)).toBe(wanted);
    });
  });
});

describe('mail', () => {
  describe('domain.mail-exchanger (RFC 5321 5.1, RFC 7505)', () => {
    const mx = (values: string[], rcode = 'NOERROR') =>
      out('domain.mail-exchanger', withAnswers(dnsAnswer(Z, 'MX', values, { rcode })));
    it.each([
      [['10 mail.a.example'], undefined, 'passed'],
      [['0 .'], undefined, 'failed'],
      [[], undefined, 'cantTell'],
      [[], 'SERVFAIL', 'cantTell'],
    ])('%j, %s: %s', (values, rcode, wanted) => {
      expect(mx(values, rcode)).toBe(wanted);
    });
    it('the domain itself is gone', () => {
      expect(
        out(
          'domain.mail-exchanger',
          withAnswers(dnsAnswer('gone.example', 'MX', [], { rcode: 'NXDOMAIN' })),
          {
            contactEmail: 'a@gone.example',
          },
        ),
      ).toBe('failed');
    });
  });
  describe('domain.mail-targets (RFC 2181 10.3)', () => {
    const judged = (...more: DnsAnswer[]) =>
      out('domain.mail-targets', withAnswers(at(1, Z, 'MX', ['10 mail.a.example']), ...more));
    it.each([
      [
        "dnsAnswer('mail.a.example', 'A', ['192.0.2.1'])",
        () => judged(dnsAnswer('mail.a.example', 'A', ['192.0.2.1'])),
        'passed',
      ],
      [
        "dnsAnswer('mail.a.example', 'A', []), dnsAnswer('mail.a.example', 'AAA",
        () => judged(dnsAnswer('mail.a.example', 'A', []), dnsAnswer('mail.a.example', 'AAAA', [])),
        'failed',
      ],
      [
        "dnsAnswer('mail.a.example', 'CNAME', ['b.example'])",
        () => judged(dnsAnswer('mail.a.example', 'CNAME', ['b.example'])),
        'failed',
      ],
      ['none', () => judged(), 'cantTell'],
    ])('%s', (_, outcome, wanted) => {
      expect(outcome()).toBe(wanted);
    });
  });
  describe('domain.spf (RFC 7208)', () => {
    const spf = (...values: string[]) =>
      out(
        'domain.spf',
        withAnswers(at(1, Z, 'TXT', txt(...values)), at(1, Z, 'MX', ['10 mail.a.example'])),
        mail,
      );
    it.each<[Partial<Brief> | undefined, string]>([
      [{ mail: 'none' }, 'inapplicable'],
      [{ notWanted: { mail: 'a project of a week' } }, 'inapplicable'],
    ])('%j: %s', (b, wanted) => {
      expect(out('domain.spf', evidence(), b)).toBe(wanted);
    });
    it.each([
      ['v=spf1 mx -all', () => spf('v=spf1 mx -all'), 'passed'],
      ['v=spf1 ip4:192.0.2.1 ~all', () => spf('v=spf1 ip4:192.0.2.1 ~all'), 'passed'],
      ['v=spf1 mx ?all', () => spf('v=spf1 mx ?all'), 'failed'],
      ['v=spf1 +all', () => spf('v=spf1 +all'), 'failed'],
      ['v=spf1 mx', () => spf('v=spf1 mx'), 'failed'],
      ['v=spf1 redirect=_spf.gone.example', () => spf('v=spf1 redirect=_spf.gone.example'), 'cantTell'],
      ['none', () => spf(), 'failed'],
      ["'v=spf1 -all', 'v=spf1 mx -all'", () => spf('v=spf1 -all', 'v=spf1 mx -all'), 'failed'],
      ['v=spf1 mxx -all', () => spf('v=spf1 mxx -all'), 'failed'],
      [
        '`v=spf1 ${Array.from({ length: 11 }, (_, i) => `a:h${i}.example`).join',
        () => spf(`v=spf1 ${Array.from({ length: 11 }, (_, i) => `a:h${i}.example`).join(' ')} -all`),
        'failed',
      ],
    ])('%s', (_, outcome, wanted) => {
      expect(outcome()).toBe(wanted);
    });
  });
  describe('domain.dkim (RFC 6376 3.6)', () => {
    const key = (...values: string[]) =>
      out('domain.dkim', withAnswers(at(1, `s1._domainkey.${Z}`, 'TXT', txt(...values))), {
        dkimSelectors: ['s1'],
      });
    const good = `v=DKIM1; k=rsa; p=${'MIIB'.padEnd(392, 'A')}`;
    it.each<[Parameters<typeof key>, string]>([
      [[good], 'passed'],
      [['v=DKIM1; p='], 'failed'],
      [[], 'failed'],
      [[good, good], 'failed'],
      [['v=DKIM1; p=!!'], 'failed'],
    ])('%j: %s', (all, wanted) => {
      expect(key(...all)).toBe(wanted);
    });
    it('not asked in this audit', () => {
      expect(out('domain.dkim', evidence(), { dkimSelectors: ['s1'] })).toBe('cantTell');
    });
  });
  describe('domain.dmarc (RFC 7489)', () => {
    const d = (...values: string[]) =>
      ask('domain.dmarc', {
        evidence: withAnswers(at(1, `_dmarc.${Z}`, 'TXT', txt(...values))),
        brief: { ...brief(), mail: 'yes' },
      });
    it.each<[Parameters<typeof d>, string]>([
      [['v=DMARC1; p=none'], 'passed'],
      [['v=DMARC1; rua=mailto:a@b.example'], 'passed'],
      [['v=DMARC1'], 'failed'],
      [[], 'failed'],
      [['v=DMARC1; p=none', 'v=DMARC1; p=reject'], 'failed'],
    ])('%j: %s', (all, wanted) => {
      expect(d(...all).outcome).toBe(wanted);
    });
    it('says it in words', () => {
      expect(d('v=DMARC1; rua=mailto:a@b.example').notes).toHaveLength(1);
    });
  });
  it('domain.no-mail-closed proposes no null MX beside an address of the domain', () => {
    const b = { ...brief(), mail: 'none' as const, contactEmail: 'hello@marsh-choir.example' };
    const { outcome, recipe } = ask('domain.no-mail-closed', { brief: b });
    expect([outcome, recipe!.paste]).toEqual(['failed', undefined]);
    expect(recipe!.steps).toContain('hello@marsh-choir.example');
    const without = ask('domain.no-mail-closed', { brief: { ...b, contactEmail: undefined } });
    expect(without.recipe!.paste!.map((p) => p.text).join('\n')).toContain('MX 0 .');
  });
  describe('domain.no-mail-closed (RFC 7505)', () => {
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
    it.each([
      [['0 .'], ['v=spf1 -all'], ['v=DMARC1; p=reject'], 'passed'],
      [[], ['v=spf1 -all'], ['v=DMARC1; p=reject'], 'failed'],
      [['0 .'], ['v=spf1 mx -all'], ['v=DMARC1; p=reject'], 'failed'],
      [['0 .'], ['v=spf1 -all'], ['v=DMARC1; p=none'], 'failed'],
    ])('%j, %j, %j: %s', (mx, spf, dmarc, wanted) => {
      expect(closed(mx, spf, dmarc)).toBe(wanted);
    });
  });
});

describe('domain.caa (RFC 8659)', () => {
  const caa = (name: string, ...values: string[]) => at(1, name, 'CAA', values);
  const judged = (issuer: string | undefined, ...answers: DnsAnswer[]) =>
    ask('domain.caa', { evidence: withAnswers(...answers), profile: { name: 'F', issuer } }).outcome;
  describe('the host’s issuer may, or may not, or is not known', () => {
    it.each([
      [
        "'ca.example', caa(Z, '0 issue \"ca.example\"')",
        'ca.example',
        caa(Z, '0 issue "ca.example"'),
        'passed',
      ],
      [
        "'ca.example', caa(Z, '0 issue \"other.example\"')",
        'ca.example',
        caa(Z, '0 issue "other.example"'),
        'failed',
      ],
      ['undefined, caa(Z, \'0 issue "ca.example"\')', undefined, caa(Z, '0 issue "ca.example"'), 'cantTell'],
      ["'ca.example', caa(Z, '0 issue \";\"')", 'ca.example', caa(Z, '0 issue ";"'), 'failed'],
      [
        "'ca.example', caa(Z, '0 iodef \"mailto:a@b.example\"')",
        'ca.example',
        caa(Z, '0 iodef "mailto:a@b.example"'),
        'passed',
      ],
    ])('%s', (_, issuer, two, wanted) => {
      expect(judged(issuer, two)).toBe(wanted);
    });
  });
  it.each([
    ['that may issue', "C=US, O=Let's Encrypt, CN=R11", '0 issue "letsencrypt.org"', 'passed'],
    ['that may not', "C=US, O=Let's Encrypt, CN=R11", '0 issue "other.example"', 'failed'],
    ['that is not known', 'O=Fennel, CN=F1', '0 issue "other.example"', 'cantTell'],
  ])(
    'where the profile names nobody, whoever issued the served certificate: one %s',
    (_, issuer, set, wanted) => {
      const e = withAnswers(caa(Z, set), caa(`www.${Z}`));
      for (const h of e.hosts) h.tls.chain[0]!.issuer = issuer;
      expect(ask('domain.caa', { evidence: e, profile: { name: 'F' } }).outcome).toBe(wanted);
    },
  );
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
  describe('domain.registration-lock (RFC 8056)', () => {
    it.each([
      [
        "r({ status: ['server transfer prohibited'] })",
        r({ status: ['server transfer prohibited'] }),
        undefined,
        undefined,
        'passed',
      ],
      ["r({ status: ['active'] })", r({ status: ['active'] }), undefined, undefined, 'failed'],
      [
        "r({ status: ['active'] }), { registrationPlan: 'transfer to Gullwing' ",
        r({ status: ['active'] }),
        { registrationPlan: 'transfer to Gullwing' },
        { situation: 'former' },
        'passed',
      ],
      ['r({ served: false })', r({ served: false }), undefined, undefined, 'cantTell'],
      ["r({ error: 'down' })", r({ error: 'down' }), undefined, undefined, 'cantTell'],
    ])('%s', (_, e, b, more, wanted) => {
      expect(out('domain.registration-lock', e, b, more)).toBe(wanted);
    });
  });
  describe('domain.registrar', () => {
    it.each([
      [
        "r({ registrar: 'GULLWING NAMES, Ltd.' }), { registrar: 'Gullwing Names",
        r({ registrar: 'GULLWING NAMES, Ltd.' }),
        { registrar: 'Gullwing Names' },
        'passed',
      ],
      [
        "r({ registrar: 'Cormorant' }), { registrar: 'Gullwing Names' }",
        r({ registrar: 'Cormorant' }),
        { registrar: 'Gullwing Names' },
        'failed',
      ],
      [
        "r({ registrar: undefined }), { registrar: 'Gullwing Names' }",
        r({ registrar: undefined }),
        { registrar: 'Gullwing Names' },
        'cantTell',
      ],
      ['evidence()', evidence(), undefined, 'untested'],
    ])('%s', (_, e, b, wanted) => {
      expect(out('domain.registrar', e, b)).toBe(wanted);
    });
  });
  describe('domain.signed (RFC 4035)', () => {
    const ds = dnsAnswer(Z, 'DS', ['1 13 2 aa'], { role: 'parent' });
    const soa = (rcode: string, more: Partial<DnsAnswer> = {}) =>
      dnsAnswer(Z, 'SOA', rcode === 'NOERROR' ? ['a b 1 2 3 4 5'] : [], { rcode, ...more });
    it.each([
      ['evidence()', evidence(), 'inapplicable'],
      [
        "withAnswers(ds, soa('NOERROR', { authenticated: true }))",
        withAnswers(ds, soa('NOERROR', { authenticated: true })),
        'passed',
      ],
      ["withAnswers(ds, soa('NOERROR'))", withAnswers(ds, soa('NOERROR')), 'cantTell'],
      [
        "withAnswers(ds, soa('SERVFAIL'), soa('NOERROR', { unchecked: true }))",
        withAnswers(ds, soa('SERVFAIL'), soa('NOERROR', { unchecked: true })),
        'failed',
      ],
      [
        "withAnswers(ds, soa('SERVFAIL'), soa('SERVFAIL', { unchecked: true }))",
        withAnswers(ds, soa('SERVFAIL'), soa('SERVFAIL', { unchecked: true })),
        'cantTell',
      ],
    ])('%s', (_, e, wanted) => {
      expect(out('domain.signed', e)).toBe(wanted);
    });
  });
});
