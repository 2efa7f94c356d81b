import { describe, expect, it } from 'vitest';
import { compareServers } from './new-operator';
import { planCutOver } from './cut-over';

const served = (name: string, type: string, value: string) => ({ name, type, value, ttl: 60 });
const { lines } = planCutOver({
  served: [
    served('a.example', 'A', '192.0.2.1'),
    served('a.example', 'MX', '10 mail.a.example.'),
    served('a.example', 'NS', 'old.example'),
    served('a.example', 'TXT', '"v=spf1 " "mx -all"'),
  ],
  wanted: [{ name: 'a.example', type: 'A', value: '192.0.2.80' }],
  negativeTtl: 60,
});
const answer = (type: string, values: string[], error?: string) => ({
  name: 'a.example',
  type,
  values,
  ttl: 60,
  ...(error ? { error } : {}),
});
const compared = (...answers: ReturnType<typeof answer>[]) =>
  compareServers([{ kind: 'authority', name: 'ns1', answers }], lines)[0]!;

describe('what the new servers have', () => {
  const GOOD = [
    answer('A', ['192.0.2.80']),
    answer('MX', ['10 MAIL.a.example']),
    answer('TXT', ['v=spf1 mx -all']),
  ];
  it('is as it is to be, however it is written; their own name servers are theirs', () => {
    expect(compared(...GOOD)).toEqual({ name: 'ns1', good: 3, differs: [] });
  });
  it.each([
    ['a record that is missing', [GOOD[0]!, answer('MX', []), GOOD[2]!], { type: 'MX', found: [] }],
    ['another value', [answer('A', ['192.0.2.1']), GOOD[1]!, GOOD[2]!], { type: 'A', found: ['192.0.2.1'] }],
    ['one too many', [GOOD[0]!, GOOD[1]!, answer('TXT', ['v=spf1 mx -all', 'x'])], { type: 'TXT' }],
    ['a refusal', [answer('A', [], 'REFUSED'), GOOD[1]!, GOOD[2]!], { type: 'A', error: 'REFUSED' }],
    ['what was not asked', [GOOD[0]!, GOOD[1]!], { type: 'TXT', error: 'it was not asked' }],
  ])('names %s', (_, answers, differs) => {
    const found = compared(...answers);
    expect(found.good).toBe(2);
    expect(found.differs).toMatchObject([differs]);
  });
});
