import { readdirSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { suffices, rightFor, RIGHTS, ROUTES } from './rights';

/** The routes that there are, by their files. */
const FILES = readdirSync('server/api', { recursive: true, encoding: 'utf8' }).flatMap((file) => {
  const [, path, method] = /^(.*?)(?:\/?index)?\.(get|post|put|patch|delete)\.ts$/.exec(file) ?? [];
  return method ? [`${method.toUpperCase()} /api/${path!.replaceAll(/\[(\w+)\]/g, ':$1')}`] : [];
});

describe('rights', () => {
  it('are named for every route, and for none that is not there', () => {
    expect(Object.keys(ROUTES).sort()).toEqual(FILES.sort());
  });
  it.each<[string, string, (typeof RIGHTS)[number]]>([
    ['GET', '/api/health', 'anyone'],
    ['HEAD', '/api/roster', 'signed in'],
    ['POST', '/api/people', 'owner'],
    ['DELETE', '/api/people/17', 'owner'],
    ['DELETE', '/api/people/17/', 'owner'],
    ['GET', '/api/people/team', 'signed in'],
    ['GET', '/api/no-such-thing', 'signed in'],
    ['POST', '/api/health', 'signed in'],
  ])('%s %s needs: %s', (method, path, needs) => {
    expect(rightFor(method, path)).toBe(needs);
  });
  it('include those below them', () => {
    for (const [i, has] of RIGHTS.entries())
      for (const [j, needs] of RIGHTS.entries()) expect(suffices(has, needs)).toBe(i >= j);
  });
});
