import { describe, expect, it } from 'vitest';
import { coversExchanger, parseStsPolicy } from '#core/extract/mta-sts';
import type { StsPolicyEvidence } from '#core/facts/evidence';
import { ask, brokenChain, chain, dnsAnswer, withAnswers } from '#core/checks/example-evidence';

const ZONE = 'marsh-choir.example';
const HOST = `mta-sts.${ZONE}`;
/** RFC 8461 3.2, "An example policy", with exchangers of the example zone. */
const POLICY = `version: STSv1\nmode: enforce\nmx: mail.${ZONE}\nmx: *.marsh-mail.example\nmax_age: 604800`;
const URL_ = `https://${HOST}/.well-known/mta-sts.txt`;
const policy = (more: Partial<StsPolicyEvidence> = {}): StsPolicyEvidence => ({
  host: HOST,
  chain: chain([URL_]),
  trusted: true,
  names: [HOST],
  text: POLICY,
  ...more,
});

function judged({
  texts = ['v=STSv1; id=20160831085700Z;'],
  sts = policy(),
  mx = [`10 mail.${ZONE}.`, '20 backup.marsh-mail.example.'],
}: {
  texts?: string[];
  sts?: StsPolicyEvidence | null;
  mx?: string[];
} = {}) {
  const evidence = withAnswers(
    dnsAnswer(
      `_mta-sts.${ZONE}`,
      'TXT',
      texts.map((t) => `"${t}"`),
    ),
    dnsAnswer(ZONE, 'MX', mx),
  );
  return ask('domain.mta-sts', { evidence: { ...evidence, mtaSts: sts } });
}

describe('domain.mta-sts (RFC 8461)', () => {
  it.each<[string, Parameters<typeof judged>[0], string]>([
    ['as it should be', {}, 'passed'],
    ['no record', { texts: [] }, 'inapplicable'],
    ['two records count as none (3.1)', { texts: ['v=STSv1; id=a', 'v=STSv1; id=b'] }, 'failed'],
    ['an id that is none', { texts: ['v=STSv1; id=a-b'] }, 'failed'],
    ['a policy that redirects (3.3)', { sts: policy({ chain: chain([URL_], 301) }) }, 'failed'],
    ['no policy', { sts: policy({ chain: chain([URL_], 404) }) }, 'failed'],
    ['a host without an address', { sts: policy({ chain: brokenChain(URL_, 'no-name') }) }, 'failed'],
    ['a host that is silent', { sts: policy({ chain: brokenChain(URL_, 'timeout') }) }, 'cantTell'],
    ['a certificate for another name', { sts: policy({ names: [ZONE] }) }, 'failed'],
    ['a certificate that is not trusted', { sts: policy({ trusted: false }) }, 'failed'],
    ['an exchanger that it does not name', { mx: ['10 other.example.'] }, 'failed'],
    [
      'the same while it says none',
      { mx: ['10 other.example.'], sts: policy({ text: POLICY.replace('enforce', 'none') }) },
      'passed',
    ],
    ['no mode', { sts: policy({ text: POLICY.replace('mode: enforce\n', '') }) }, 'failed'],
    ['a page in place of a policy', { sts: policy({ text: '<!doctype html><title>x' }) }, 'failed'],
    ['a record, and nothing collected', { sts: null }, 'cantTell'],
  ])('%s', (_, given, wanted) => {
    expect(judged(given).outcome).toBe(wanted);
  });
});

it.each([
  // RFC 8461 4.1: the wildcard stands for the left-most label alone
  ['*.example.com', 'mail.example.com', true],
  ['*.example.com', 'a.mail.example.com', false],
  ['*.example.com', 'example.com', false],
  ['mail.example.com', 'MAIL.example.com.', true],
])('%s and %s: %s', (pattern, exchanger, wanted) => {
  expect(coversExchanger([pattern], exchanger)).toBe(wanted);
});

it('a policy is read in bounded time, whatever it is', () => {
  expect(parseStsPolicy('mx: a\n'.repeat(100_000)).mx.length).toBeLessThanOrEqual(500);
  expect(parseStsPolicy('').errors.length).toBeGreaterThan(0);
});
