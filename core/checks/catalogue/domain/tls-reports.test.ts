import { describe, expect, it } from 'vitest';
import { ask, dnsAnswer, withAnswers } from '#core/checks/example-evidence';

const NAME = '_smtp._tls.marsh-choir.example';
const judged = (...texts: string[]) =>
  ask('domain.tls-reports', {
    evidence: withAnswers(
      dnsAnswer(
        NAME,
        'TXT',
        texts.map((t) => `"${t}"`),
      ),
    ),
  }).outcome;

describe('domain.tls-reports (RFC 8460 3, with its examples)', () => {
  it.each([
    ['no record', [], 'inapplicable'],
    ['something else at the name', ['hello'], 'inapplicable'],
    ['by mail', ['v=TLSRPTv1;rua=mailto:reports@example.com'], 'passed'],
    ['by https', ['v=TLSRPTv1; rua=https://reporting.example.com/v1/tlsrpt'], 'passed'],
    ['by both', ['v=TLSRPTv1; rua=mailto:a@example.com,https://r.example.com/x'], 'passed'],
    ['without a scheme', ['v=TLSRPTv1; rua=reports@example.com'], 'failed'],
    ['without rua', ['v=TLSRPTv1'], 'failed'],
    ['twice', ['v=TLSRPTv1;rua=mailto:a@example.com', 'v=TLSRPTv1;rua=mailto:b@example.com'], 'failed'],
  ])('%s', (_, texts, wanted) => {
    expect(judged(...texts)).toBe(wanted);
  });
});
