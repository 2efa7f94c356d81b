/**
 * Every threshold of the catalogue from both sides: the last value that is good, and the first that is not.
 */
import { describe, expect, it } from 'vitest';
import type { AssetEvidence, Evidence, Exchange } from '#core/facts/evidence';
import type { RenderedView } from '#core/facts/rendered';
import { textWidth } from '#core/text/width';
import { CATALOGUE } from './index';
import {
  AT,
  ask,
  brief,
  chain,
  dnsAnswer,
  evidence,
  host,
  page,
  withHome,
  withSeen,
  type Asked,
} from '#core/checks/example-evidence';

const BASE = 'https://marsh-choir.example/';
const DAY = 86_400_000;
const day = (from: Date, days: number): string => new Date(from.getTime() + days * DAY).toISOString();

function certificate(days: number, lifetime = 90): Evidence {
  const h = host('marsh-choir.example');
  const leaf = { ...h.tls!.chain[0]!, notAfter: day(AT, days), notBefore: day(AT, days - lifetime) };
  return evidence({
    hosts: [
      { ...h, tls: { ...h.tls!, chain: [leaf, ...h.tls!.chain.slice(1)] } },
      host('www.marsh-choir.example'),
    ],
  });
}
const answered = (change: Partial<Exchange>, headers?: [string, string][]): Evidence => {
  const e = withHome({});
  e.pages = e.pages.map((p, i) => {
    const c = chain([p.url], 200, headers);
    return { ...p, chain: { ...c, hops: [{ ...c.hops[0]!, ...(i ? {} : change) }] } };
  });
  return e;
};
const picture = (
  role: 'icon' | 'touch-icon' | 'share-picture',
  width: number,
  height: number,
  size?: number,
): Evidence => {
  const e = evidence();
  return {
    ...e,
    assets: e.assets.map((a) =>
      a.roles.includes(role)
        ? { ...a, ...(size === undefined ? {} : { size }), image: { type: 'png', width, height } }
        : a,
    ),
  };
};
const file = (path: string, headers: [string, string][], bytes = 5000): AssetEvidence => {
  const c = chain([BASE + path], 200, headers);
  return {
    url: BASE + path,
    roles: ['script'],
    chain: { ...c, hops: [{ ...c.hops[0]!, bytes: { encoded: bytes, decoded: bytes } }] },
    size: bytes,
  } as AssetEvidence;
};
const withFile = (a: AssetEvidence): Evidence => {
  const e = evidence();
  return { ...e, assets: [...e.assets, a] };
};
const registered = (days: number): Evidence => {
  const e = evidence();
  return {
    ...e,
    registration: { ...e.registration!, events: [{ action: 'expiration', date: day(AT, days) }] },
  };
};
const slow = (first: number[]): Evidence => {
  const e = evidence();
  return {
    ...e,
    pages: e.pages.slice(0, first.length).map((p, i) => ({
      ...p,
      chain: {
        ...p.chain,
        hops: p.chain.hops.map((h) => ({ ...h, timing: { ...h.timing, firstByte: first[i]! } })),
      },
    })),
  };
};
const titled = (title: string): Evidence => {
  const e = withHome({ title });
  return { ...e, pages: e.pages.slice(0, 1) };
};
const described = (description: string): Evidence => {
  const e = withHome({ description });
  return { ...e, pages: e.pages.slice(0, 1) };
};
const led = (http: number, https: number, last = BASE): Evidence => {
  const over = (scheme: string, n: number) =>
    chain([...Array.from({ length: n }, (_, i) => `${scheme}://www.marsh-choir.example/${i || ''}`), last]);
  return evidence({
    hosts: [
      host('marsh-choir.example'),
      host('www.marsh-choir.example', { http: over('http', http), https: over('https', https) }),
    ],
  });
};
const kept = (ttl: number): Evidence => {
  const e = evidence();
  return {
    ...e,
    dns: {
      ...e.dns,
      answers: e.dns.answers.map((a) =>
        a.type === 'A' ? { ...a, records: a.records.map((r) => ({ ...r, ttl })) } : a,
      ),
    },
  };
};
const spf = (lookups: number, voids = 0): Evidence => {
  const e = evidence();
  const names = Array.from({ length: lookups }, (_, i) => `s${i}.host.example`);
  const answers = [
    ...e.dns.answers.filter((a) => a.type !== 'TXT'),
    dnsAnswer('marsh-choir.example', 'TXT', [
      `"v=spf1 ${names.map((n) => `include:${n}`).join(' ')} ${Array.from({ length: voids }, (_, i) => `exists:v${i}.host.example`).join(' ')} -all"`,
    ]),
    ...names.map((n) => dnsAnswer(n, 'TXT', ['"v=spf1 -all"'])),
    ...Array.from({ length: voids }, (_, i) =>
      dnsAnswer(`v${i}.host.example`, 'A', [], { rcode: 'NXDOMAIN' }),
    ),
  ];
  return { ...e, dns: { ...e.dns, answers } };
};
const renewing = [
  { check: 'domain.renewal-owner', by: 'Mara', at: day(AT, -3), done: true, goodUntil: day(AT, 300) },
];
const mailing = { ...brief(), mail: 'yes' as const };
const strict = (seconds: number): Evidence =>
  evidence({
    hosts: [
      host('marsh-choir.example', {
        https: chain([BASE], 200, [
          ['Content-Type', 'text/html'],
          ['Strict-Transport-Security', `max-age=${seconds}`],
        ]),
      }),
      host('www.marsh-choir.example'),
    ],
  });
const disagreeing = (): Evidence => {
  const e = evidence();
  return {
    ...e,
    dns: {
      ...e.dns,
      answers: e.dns.answers.map((a) =>
        a.type === 'A' && a.serverName === 'ns2.registry.example'
          ? { ...a, records: [{ ...a.records[0]!, value: '192.0.2.99' }] }
          : a,
      ),
    },
  };
};
const twins = (share: string): Evidence => {
  const words = Array.from({ length: 400 }, (_, i) => `word${i}`);
  return evidence({
    pages: [
      page({ url: BASE, via: 'home', title: null }),
      ...['a', 'b'].map((p, i) => {
        const x = page({ url: `${BASE}${p}/`, title: p });
        return {
          ...x,
          facts: {
            ...x.facts!,
            text: [
              ...words.slice(0, i ? 400 - Number(share) : 400),
              ...(i ? Array.from({ length: Number(share) }, (_, k) => `other${k}`) : []),
            ].join(' '),
            textLength: 3000,
          },
        };
      }),
    ],
  });
};
/** Pages as a phone showed them. */
const onPhone = (layout: Partial<NonNullable<RenderedView['layout']>>): Evidence =>
  withSeen({ layout: { width: 390, sideways: 0, wide: [], small: [], ...layout } });
const lettered = (px: number, letters: number): Evidence =>
  onPhone({ small: [{ px, letters, element: 'p', text: 'Songs' }] });
/** A text of so many letters that take little room. */
const narrow = (letters: number): string => 'il'.repeat(Math.ceil(letters / 2)).slice(0, letters);
/** The longest run of a letter that stays within a width, and one more. */
const wide = (letter: string, size: number, px: number): [string, string] => {
  let n = 1;
  while (Math.ceil(textWidth(letter.repeat(n + 1), size)) <= px) n++;
  return [letter.repeat(n), letter.repeat(n + 1)];
};
const [titleFits, titleSpills] = wide('W', 20, 560);
const [textFits, textSpills] = wide('n', 14, 900);
const lapsing = (days: number): Asked => ({
  situation: 'staging',
  evidence: { ...evidence(), target: { ...evidence().target, kind: 'before' } },
  environment: { endsOn: day(AT, days) },
});
const launch = (date: string, ttl = 60): Asked => ({
  situation: 'former',
  evidence: kept(ttl),
  brief: {
    ...brief(),
    launchDate: date,
    records: [{ name: 'marsh-choir.example', type: 'A', value: '198.51.100.9' }],
  },
});

/**
 * Check, parameter, what is good by a hair, what is bad by a hair, and what that is where it is not a
 * failure.
 */
const CASES: [check: string, parameter: string, good: Asked, bad: Asked, badOutcome?: string][] = [
  ['https.certificate-days', 'days', { evidence: certificate(21) }, { evidence: certificate(20.99) }],
  ['https.certificate-days', 'days', { evidence: certificate(1.5, 6) }, { evidence: certificate(1.49, 6) }],
  ['https.hsts', 'seconds', { evidence: strict(15_552_000) }, { evidence: strict(15_551_999) }],
  ['https.few-hops', 'http', { evidence: led(2, 1) }, { evidence: led(3, 1) }],
  ['https.few-hops', 'https', { evidence: led(1, 1) }, { evidence: led(1, 2) }],
  [
    'https.few-hops',
    'language',
    { evidence: led(3, 2, `${BASE}en/`) },
    { evidence: led(3, 3, `${BASE}en/`) },
  ],
  ['domain.registration-days', 'days', { evidence: registered(60) }, { evidence: registered(59.99) }],
  [
    'domain.registration-days',
    'renewing',
    { evidence: registered(14), attestations: renewing },
    { evidence: registered(13.99), attestations: renewing },
  ],
  ['domain.spf', 'lookups', { evidence: spf(10), brief: mailing }, { evidence: spf(11), brief: mailing }],
  ['domain.spf', 'voids', { evidence: spf(1, 2), brief: mailing }, { evidence: spf(1, 3), brief: mailing }],
  [
    'domain.authorities-agree',
    'hours',
    {
      evidence: disagreeing(),
      brief: { ...brief(), launchDate: new Date(AT.getTime() - 48 * 3_600_000).toISOString() },
    },
    {
      evidence: disagreeing(),
      brief: { ...brief(), launchDate: new Date(AT.getTime() - 48 * 3_600_000 - 1).toISOString() },
    },
  ],
  ['domain.ttl-for-launch', 'seconds', launch('2026-11-26', 3600), launch('2026-11-26', 3601)],
  ['domain.ttl-for-launch', 'days', launch('2026-11-27', 60), launch('2026-11-28', 60), 'inapplicable'],
  ['indexing.no-duplicates', 'likeness', { evidence: twins('60') }, { evidence: twins('1') }],
  ['metadata.title-length', 'least', { evidence: titled(narrow(15)) }, { evidence: titled(narrow(14)) }],
  ['metadata.title-length', 'most', { evidence: titled(narrow(60)) }, { evidence: titled(narrow(61)) }],
  ['metadata.title-length', 'width', { evidence: titled(titleFits) }, { evidence: titled(titleSpills) }],
  [
    'metadata.description-length',
    'least',
    { evidence: described(narrow(80)) },
    { evidence: described(narrow(79)) },
  ],
  [
    'metadata.description-length',
    'most',
    { evidence: described(narrow(150)) },
    { evidence: described(narrow(151)) },
  ],
  [
    'metadata.description-length',
    'width',
    { evidence: described(textFits) },
    { evidence: described(textSpills) },
  ],
  ['sharing.favicon', 'size', { evidence: picture('icon', 32, 32) }, { evidence: picture('icon', 31, 31) }],
  [
    'sharing.icon-sharp',
    'size',
    { evidence: picture('icon', 64, 64) },
    { evidence: picture('icon', 63, 63) },
  ],
  [
    'sharing.touch-icon',
    'size',
    { evidence: picture('touch-icon', 180, 180) },
    { evidence: picture('touch-icon', 179, 179) },
  ],
  [
    'sharing.image-size',
    'width',
    { evidence: picture('share-picture', 1200, 630) },
    { evidence: picture('share-picture', 1199, 630) },
  ],
  [
    'sharing.image-size',
    'height',
    { evidence: picture('share-picture', 1200, 630) },
    { evidence: picture('share-picture', 1200, 629) },
  ],
  [
    'sharing.image-size',
    'tolerance',
    { evidence: picture('share-picture', 10_200, 5250) },
    { evidence: picture('share-picture', 10_201, 5250) },
  ],
  [
    'sharing.image-weight',
    'bytes',
    { evidence: picture('share-picture', 1200, 630, 2_000_000) },
    { evidence: picture('share-picture', 1200, 630, 2_000_001) },
  ],
  [
    'delivery.phone-fits',
    'sideways',
    { evidence: onPhone({ sideways: 2 }) },
    { evidence: onPhone({ sideways: 3 }) },
  ],
  ['delivery.phone-fits', 'pixels', { evidence: lettered(12, 500) }, { evidence: lettered(11.9, 500) }],
  ['delivery.phone-fits', 'letters', { evidence: lettered(9, 20) }, { evidence: lettered(9, 21) }],
  [
    'delivery.layout-still',
    'shift',
    { evidence: withSeen({ layoutShift: 0.0999 }) },
    { evidence: withSeen({ layoutShift: 0.1 }) },
  ],
  [
    'delivery.picture-weight',
    'bytes',
    {
      evidence: withFile({ ...file('a.png', [['Content-Type', 'image/png']], 500_000), roles: ['picture'] }),
    },
    {
      evidence: withFile({ ...file('a.png', [['Content-Type', 'image/png']], 500_001), roles: ['picture'] }),
    },
  ],
  [
    'delivery.cached',
    'seconds',
    {
      evidence: withFile(
        file('app.3f9a2c1b.js', [
          ['Content-Type', 'text/javascript'],
          ['Content-Encoding', 'gzip'],
          ['Cache-Control', 'max-age=604800'],
        ]),
      ),
    },
    {
      evidence: withFile(
        file('app.3f9a2c1b.js', [
          ['Content-Type', 'text/javascript'],
          ['Content-Encoding', 'gzip'],
          ['Cache-Control', 'public, max-age=604799'],
        ]),
      ),
    },
  ],
  [
    'delivery.compressed',
    'bytes',
    { evidence: withFile(file('a.js', [['Content-Type', 'text/javascript']], 1024)) },
    { evidence: withFile(file('a.js', [['Content-Type', 'text/javascript']], 1025)) },
  ],
  [
    'delivery.page-weight',
    'bytes',
    { evidence: answered({ bytes: { encoded: 3_000_000, decoded: 9_000_000 } }) },
    { evidence: answered({ bytes: { encoded: 3_000_001, decoded: 9_000_000 } }) },
  ],
  [
    'delivery.response-time',
    'milliseconds',
    { evidence: slow([100, 800, 5000]) },
    { evidence: slow([100, 800.5, 5000]) },
  ],
  [
    'delivery.response-time',
    'milliseconds',
    { evidence: slow([600, 1000]) },
    { evidence: slow([601, 1000]) },
  ],
  ['delivery.staging-lifetime', 'days', lapsing(7), lapsing(6.99)],
];

describe('thresholds', () => {
  it.each(CASES)('%s, %s: good by a hair, bad by a hair', (check, parameter, good, bad, badOutcome) => {
    const other = check === 'domain.authorities-agree' ? 'cantTell' : 'passed';
    const right = ask(check, good),
      wrong = ask(check, bad);
    expect([right.outcome, right.outcome === other ? '' : (right.found ?? right.reason)]).toEqual([
      other,
      '',
    ]);
    expect([
      wrong.outcome,
      wrong.outcome === (badOutcome ?? 'failed') ? '' : (wrong.found ?? wrong.reason),
    ]).toEqual([badOutcome ?? 'failed', '']);
    expect(Object.keys(CATALOGUE.find((c) => c.id === check)!.parameters!)).toContain(parameter);
  });
  it('none is left out', () => {
    const here = new Set(CASES.map(([check, parameter]) => `${check} ${parameter}`));
    expect(
      CATALOGUE.flatMap((c) => Object.keys(c.parameters ?? {}).map((p) => `${c.id} ${p}`)).filter(
        (x) => !here.has(x),
      ),
    ).toEqual([]);
  });
  it.each(CATALOGUE.filter((c) => c.parameters).map((c) => [c.id, c] as const))(
    'the defaults of %s lie within their own range',
    (_, c) => {
      for (const p of Object.values(c.parameters!))
        expect(p.default >= p.min && p.default <= p.max).toBe(true);
    },
  );
});
