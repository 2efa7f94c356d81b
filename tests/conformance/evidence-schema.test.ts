/**
 * The published schema of evidence: current with the types, true of what is collected, and able to refuse.
 */
import { readFileSync } from 'node:fs';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { describe, expect, it } from 'vitest';
import { evidence } from '#core/checks/example-evidence';
import { evidenceSchema } from '../../scripts/schema.mjs';

const file = new URL('../../docs/schemas/evidence.schema.json', import.meta.url);
const validate = new Ajv2020({ strict: false, allErrors: true }).compile(
  JSON.parse(readFileSync(file, 'utf8')) as object,
);
const plain = (): Record<string, unknown> =>
  JSON.parse(JSON.stringify(evidence())) as Record<string, unknown>;

describe('docs/schemas/evidence.schema.json', () => {
  it('says what the types say (npm run schema)', () => {
    expect(readFileSync(file, 'utf8')).toBe(evidenceSchema());
  });
  it('takes evidence', () => {
    validate(plain());
    expect(validate.errors).toBeNull();
  });
  it.each([
    ['version', 'two'],
    ['pages', {}],
    ['hosts', [{}]],
    ['surprise', 1],
  ])('refuses a wrong %s', (key, value) => {
    expect(validate({ ...plain(), [key]: value })).toBe(false);
  });
});
