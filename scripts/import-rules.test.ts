import { existsSync, readdirSync, statSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { ROOMS, SUBJECTS } from './import-rules.mjs';

const folders = (of: string): string[] =>
  readdirSync(of).filter((name) => statSync(`${of}/${name}`).isDirectory());

describe('the drawings in CONTRIBUTING.md', () => {
  it('name every folder of the server, and no other', () =>
    expect([...SUBJECTS.keys()].sort()).toEqual(folders('server').sort()));
  it('name rooms that exist', () =>
    expect([...ROOMS.keys()].filter((room) => !existsSync(room))).toEqual([]));

  it.each<[string, string, boolean]>([
    ['fixes', 'audits', true],
    ['fixes', 'platform', true],
    ['audits', 'fixes', false],
    ['platform', 'people', false],
    ['reads', 'launch', true],
  ])('%s may import %s: %s', (from, to, may) => expect(SUBJECTS.get(from)!.has(to)).toBe(may));
  it('the computation imports nothing of the rest', () => expect([...ROOMS.get('core')!]).toEqual(['core']));
});
