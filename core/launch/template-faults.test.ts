/** What makes a template unusable, and that the built-in one is not. */
import { describe, expect, it } from 'vitest';
import { CATALOGUE, checkById } from '#core/checks/catalogue/index';
import { BUILT_IN_TEMPLATE } from './built-in-template';
import { templateFaults } from './template-faults';

const ids = new Set(CATALOGUE.map((c) => c.id));
const [first, second] = BUILT_IN_TEMPLATE.steps as [
  (typeof BUILT_IN_TEMPLATE.steps)[number],
  (typeof BUILT_IN_TEMPLATE.steps)[number],
];

describe('the built-in run sheet', () => {
  it('is sound, and names only checks that there are', () => {
    expect(templateFaults(BUILT_IN_TEMPLATE, ids)).toEqual([]);
  });
  it.each(
    BUILT_IN_TEMPLATE.steps.flatMap((s) =>
      s.proofs.flatMap((p) => (p.check ? [[s.id, p.environment!, p.check] as const] : [])),
    ),
  )('%s is proven where its check is judged: %s %s', (_, environment, check) => {
    const { situations } = checkById.get(check)!;
    const here = environment === 'before' ? ['staging'] : ['holding', 'former', 'live'];
    expect(situations.some((s) => here.includes(s))).toBe(true);
  });
  it.each(BUILT_IN_TEMPLATE.steps.map((s) => [s.id, s] as const))(
    '%s is planned no earlier than what it rests on',
    (_, step) => {
      for (const id of step.after) {
        const other = BUILT_IN_TEMPLATE.steps.find((s) => s.id === id)!;
        expect(other.offsetHours).toBeLessThanOrEqual(step.offsetHours);
      }
    },
  );
});

describe('faults of a template', () => {
  it.each([
    ['an id twice', [first, { ...second, id: first.id }], /the id accounts/],
    ['a step that waits for none', [{ ...first, after: ['nowhere'] }], /waits for nowhere/],
    [
      'a circle',
      [
        { ...first, after: [second.id] },
        { ...second, after: [first.id] },
      ],
      /wait for each other/,
    ],
    ['a step that waits for itself', [{ ...first, after: [first.id] }], /wait for each other/],
    ['a proof without a check', [{ ...first, proofs: [{ kind: 'check' as const }] }], /names no check/],
    [
      'a check that is none',
      [{ ...first, proofs: [{ kind: 'check' as const, check: 'a.b', environment: 'live' as const }] }],
      /a\.b, which is no check/,
    ],
  ])('%s', (_, steps, fault) => {
    expect(templateFaults({ steps }, ids).join(' ')).toMatch(fault);
  });
});
