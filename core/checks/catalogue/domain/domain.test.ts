import { extractPage } from '#core/extract/html';
import { describe, expect, it } from 'vitest';
import type { DnsAnswer } from '#core/facts/evidence';
import {
  AT,
  ask,
  brief,
  brokenChain,
  chain,
  dnsAnswer,
  evidence,
  host,
  page,
} from '#core/checks/example-evidence';
import { canonicalValue, sameValue } from '#core/checks/kit/dns-answers';
import { hourLine } from '#core/formats/zone-file/write';

const main = 'marsh-choir.example',
  www = `www.${main}`;
const withAnswers = (answers: DnsAnswer[]) => evidence({ dns: { ...evidence().dns, answers } });
const authority = (n: number, values: string[], more: Partial<DnsAnswer> = {}) =>
  dnsAnswer(main, 'A', values, {
    role: 'authority',
    server: `203.0.113.5${n}:53`,
    serverName: `ns${n}.registry.example`,
    ...more,
  });
const days = (n: number) => new Date(AT.getTime() + n * 86_400_000).toISOString();

describe('values of records', () => {
  it('are compared as their type is', () => {
    expect(sameValue('CNAME', 'Kites.Example.', 'kites.example')).toBe(true);
    expect(sameValue('AAAA', '2001:DB8:0:0::1', '2001:db8::1')).toBe(true);
    expect(sameValue('MX', '10  Mail.a.example.', '10 mail.a.example')).toBe(true);
    expect(sameValue('TXT', '"v=spf1 " "-all"', 'v=spf1 -all')).toBe(true);
    expect(sameValue('TXT', '"A"', 'a')).toBe(false);
    expect(canonicalValue('TXT', '"a\\"b\\\\c\\228"')).toBe('a"b\\c\u00e4');
  });
  // names in the data end with a dot, or they would land under the zone; examples of RFC 2782 and RFC 9460
  it.each([
    ['TXT', 'say "x"', '"say \\"x\\""'],
    ['CNAME', 'a.example', 'a.example.'],
    ['MX', '10 mail.a.example', '10 mail.a.example.'],
    ['SRV', '0 1 9 old-slow-box.a.example', '0 1 9 old-slow-box.a.example.'],
    ['SRV', '0 0 0 .', '0 0 0 .'],
    ['HTTPS', '1 . alpn=h2', '1 . alpn=h2'],
    ['HTTPS', '0 pool.svc.example', '0 pool.svc.example.'],
    [
      'SOA',
      'ns1.a.example hostmaster.a.example 1 7200 600 3600000 60',
      'ns1.a.example. hostmaster.a.example. 1 7200 600 3600000 60',
    ],
    ['CAA', '0 issue ca.example', '0 issue "ca.example"'],
    ['A', '192.0.2.1', '192.0.2.1'],
  ])('a record %s %s to paste (RFC 1035 5.1)', (type, value, data) => {
    expect(hourLine({ name: 'a.example', type, value })).toBe(`a.example. 3600 IN ${type} ${data}`);
  });
  it('keep their own time to live', () => {
    expect(hourLine({ name: 'www.a.example', type: 'A', value: '192.0.2.1', ttl: 60 })).toBe(
      'www.a.example. 60 IN A 192.0.2.1',
    );
  });
  it('the recipe of domain.records-match pastes the target of a service with its final dot', () => {
    const record = {
      name: '_sip._tcp.marsh-choir.example',
      type: 'SRV' as const,
      value: '0 5 5060 sip.a.example',
    };
    const { recipe } = ask('domain.records-match', {
      evidence: withAnswers([dnsAnswer(record.name, 'SRV', [])]),
      brief: { ...brief(), records: [record] },
    });
    expect(recipe!.paste![0]!.text).toBe(
      '_sip._tcp.marsh-choir.example. 3600 IN SRV 0 5 5060 sip.a.example.',
    );
  });
});

describe('domain.resolves', () => {
  const judged = (more: Partial<DnsAnswer>) =>
    ask('domain.resolves', {
      evidence: withAnswers(
        [main, www].flatMap((n) => [dnsAnswer(n, 'A', [], more), dnsAnswer(n, 'AAAA', [], more)]),
      ),
    });
  it('NXDOMAIN and NODATA fail, silence and SERVFAIL cannot tell', () => {
    expect(judged({ rcode: 'NXDOMAIN' })).toMatchObject({
      outcome: 'failed',
      places: [{ found: 'the name does not exist (NXDOMAIN)' }, {}],
    });
    expect(judged({})).toMatchObject({
      outcome: 'failed',
      places: [{ found: 'the name has no address' }, {}],
    });
    expect(judged({ rcode: 'SERVFAIL' }).outcome).toBe('cantTell');
    expect(judged({ rcode: 'NONE', error: 'no answer in time' }).outcome).toBe('cantTell');
  });
});

describe('domain.records-match', () => {
  const judged = (answers: DnsAnswer[], b = brief()) =>
    ask('domain.records-match', { evidence: withAnswers(answers), brief: b });
  it('asks every name server for itself', () => {
    expect(judged([authority(1, ['192.0.2.10']), authority(2, ['192.0.2.10'])]).outcome).toBe('passed');
    expect(judged([authority(1, ['192.0.2.10']), authority(2, ['192.0.2.77'])])).toMatchObject({
      outcome: 'failed',
      credit: { num: 1, den: 2 },
      places: [
        { outcome: 'passed' },
        { place: `A ${main} at ns2.registry.example`, found: '192.0.2.77', expected: '192.0.2.10' },
      ],
    });
    expect(
      judged([authority(1, ['192.0.2.10']), authority(2, [], { rcode: 'NONE', error: 'no answer in time' })])
        .outcome,
    ).toBe('cantTell');
  });
  it('takes the resolver’s word where no name server can be asked', () => {
    expect(judged([dnsAnswer(main, 'A', ['192.0.2.10'])]).outcome).toBe('passed');
  });
  describe('takes any address of the host’s ranges for the record’s, here, as a stray one, and where servers differ', () => {
    const profile = { name: 'Fennel', addressRanges: ['192.0.2.0/28'] };
    const at = (check: string, first: string, second = first) =>
      ask(check, { evidence: withAnswers([authority(1, [first]), authority(2, [second])]), profile });
    const stray = (more: string) =>
      ask('domain.no-stray-records', {
        evidence: withAnswers(
          [1, 2].flatMap((n) => [
            authority(n, ['192.0.2.10', more]),
            ...['AAAA', 'CNAME'].map((t) => ({ ...authority(n, []), type: t })),
          ]),
        ),
        profile,
      }).outcome;
    it.each([
      ['domain.records-match', '192.0.2.16', undefined, 'failed'],
      ['domain.authorities-agree', '192.0.2.14', '192.0.2.15', 'passed'],
      ['domain.authorities-agree', '192.0.2.15', '192.0.2.16', 'failed'],
    ])('%s, %s, %s: %s', (check, first, second, wanted) => {
      expect(at(check, first, second).outcome).toBe(wanted);
    });
    it.each([
      ['192.0.2.15', 'passed'],
      ['192.0.2.16', 'failed'],
    ])('%s: %s', (more, wanted) => {
      expect(stray(more)).toBe(wanted);
    });
    it('says it in words', () => {
      expect(at('domain.records-match', '192.0.2.15')).toMatchObject({
        outcome: 'passed',
        places: [{ found: '192.0.2.15, of Fennel’s 192.0.2.0/28' }, {}],
      });
    });
  });
  it('lets a host flatten its alias into the addresses behind it', () => {
    const b = { ...brief(), records: [{ name: main, type: 'CNAME', value: 'edge.host.example' }] };
    const flat = (address: string) =>
      judged(
        [
          dnsAnswer(main, 'CNAME', []),
          dnsAnswer(main, 'A', [address]),
          dnsAnswer('edge.host.example', 'A', ['192.0.2.10', '192.0.2.11']),
        ],
        b,
      ).outcome;
    expect(flat('192.0.2.11')).toBe('passed');
    expect(flat('192.0.2.12')).toBe('failed');
  });
  it('is not applicable to a site reached by forwarding', () => {
    expect(judged([], { ...brief(), reachedBy: 'forwarding' }).outcome).toBe('inapplicable');
  });
});

describe('domain.preferred-host and path-kept', () => {
  it('the other host must lead on, path and query kept, for good', () => {
    const other = (https: string[], path: string[], redirect = 301) =>
      evidence({
        hosts: [
          host(main),
          host(www, {
            https: chain(https, 200, undefined, redirect),
            httpsPath: chain(path, 404, undefined, redirect),
          }),
        ],
      });
    const home = `https://${main}/`,
      from = `https://${www}/`;
    expect(ask('domain.preferred-host', { evidence: other([from], [from]) })).toMatchObject({
      outcome: 'failed',
      found: `1 of 2 hosts: stays on ${www}`,
    });
    expect(ask('domain.path-kept', { evidence: other([from, home], [`${from}a?b=1`, home]) }).outcome).toBe(
      'failed',
    );
    expect(
      ask('domain.path-kept', { evidence: other([from, home], [`${from}a?b=1`, `${home}en/a?b=1`]) }).outcome,
    ).toBe('passed');
    expect(
      ask('domain.path-kept', { evidence: other([from, home], [`${from}a?b=1`, `${home}a?b=1`], 302) })
        .outcome,
    ).toBe('failed');
  });
  it('a preferred host that leads away fails; one that is silent cannot tell', () => {
    expect(
      ask('domain.preferred-host', {
        evidence: evidence({
          hosts: [host(main, { https: chain([`https://${main}/`, `https://${www}/`]) })],
        }),
      }).outcome,
    ).toBe('failed');
    const silent = brokenChain(`https://${main}/`, 'timeout');
    expect(
      ask('domain.preferred-host', {
        evidence: evidence({ hosts: [host(main, { https: silent, http: silent, landing: undefined })] }),
      }).outcome,
    ).toBe('cantTell');
  });
});

describe('domain.connected', () => {
  const landed = (text: string, profile = {}) =>
    ask('domain.connected', {
      profile: { name: 'Fennel', ...profile },
      evidence: evidence({
        hosts: [
          host(main, {
            landing: {
              url: `https://${main}/`,
              status: 200,
              facts: extractPage(`<title>x</title><h1>${text}</h1>`, `https://${main}/`),
            },
          }),
        ],
      }),
    });
  it('knows parking from an unknown name, by common marks and the profile’s own', () => {
    expect(landed('This domain is parked').found).toContain('still parked');
    expect(
      landed('Fennel has no site under this name', { marks: { unknownName: ['no site under this name'] } })
        .found,
    ).toContain('does not know the name');
    expect(landed('Songs').outcome).toBe('passed');
  });
  it('a web server’s default page fails, and the home page and titles rest on it', () => {
    const text =
      'Welcome to nginx!</h1><p>If you see this page, the nginx web server is successfully installed and working.';
    expect(landed(text)).toMatchObject({
      outcome: 'failed',
      found: expect.stringContaining('default page') as string,
    });
    const html = `<title>Welcome to nginx!</title><h1>${text}`;
    const facts = extractPage(html, `https://${main}/`);
    const e = evidence({
      hosts: [host(main, { landing: { url: `https://${main}/`, status: 200, facts } })],
      pages: [{ ...page({ url: `https://${main}/`, via: 'home' }), facts }],
    });
    for (const check of ['identity.home-page', 'identity.no-default-title'])
      expect(ask(check, { evidence: e })).toMatchObject({
        outcome: 'cantTell',
        reason: expect.stringContaining('domain.connected') as string,
      });
    expect(ask('identity.home-page', { evidence: e, situation: 'staging' }).outcome).toBe('failed');
  });
  it('common marks count on short pages only', () => {
    expect(landed(`This domain is for sale! ${'Songs of the sea. '.repeat(80)}`).outcome).toBe('passed');
    expect(landed('How we bought it: this domain is for sale').outcome).toBe('passed');
  });
});

describe('registration (RFC 9083)', () => {
  const registered = (end: string | undefined, status = ['active']) =>
    evidence({
      registration: {
        domain: main,
        served: true,
        status,
        events: end ? [{ action: 'expiration', date: end }] : [],
        nameServers: [],
      },
    });
  it('60 days to the end', () => {
    expect(ask('domain.registration-days', { evidence: registered(days(60)) }).outcome).toBe('passed');
    expect(ask('domain.registration-days', { evidence: registered(days(59.9)) }).outcome).toBe('failed');
    expect(ask('domain.registration-days', { evidence: registered(undefined) }).outcome).toBe('cantTell');
    expect(ask('domain.registration-days', { evidence: evidence({ registration: null }) }).outcome).toBe(
      'cantTell',
    );
  });
  it.each(['status', 'days', 'lock'].map((n) => `domain.registration-${n}`).concat('domain.registrar'))(
    'where no server is known, %s cannot tell, and says why as the others do',
    (check) => {
      const b = { ...brief(), registrar: 'Gullwing Names' };
      expect(ask(check, { evidence: evidence({ registration: null }), brief: b })).toMatchObject({
        outcome: 'cantTell',
        reason: 'no registration server is known for this domain',
      });
    },
  );
  it('a server that says nothing tells nothing', () => {
    expect(
      ask('domain.registration-status', {
        evidence: evidence({
          registration: {
            domain: main,
            served: true,
            status: [],
            events: [],
            nameServers: [],
            error: 'no answer',
          },
        }),
      }).outcome,
    ).toBe('cantTell');
  });
  it('statuses that switch a domain off (RFC 8056)', () => {
    for (const s of ['client hold', 'Server Hold', 'redemption period', 'pending delete'])
      expect(
        ask('domain.registration-status', {
          evidence: registered(days(100), ['client transfer prohibited', s]),
        }).outcome,
        s,
      ).toBe('failed');
    expect(
      ask('domain.registration-status', { evidence: registered(days(100), ['client transfer prohibited']) })
        .outcome,
    ).toBe('passed');
  });
});
