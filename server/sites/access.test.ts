import { beforeEach, describe, expect, it } from 'vitest';
import { accessesByName, sealAccess, accessName, accessOf } from './access';

beforeEach(() => {
  process.env.NUXT_SESSION_PASSWORD = 'a secret of at least thirty-two letters';
});
const url = 'https://draft.host.example/x/';

describe('access', () => {
  it('comes back as it was given, for the environment’s own origin', () => {
    const sealed = sealAccess({ kind: 'credentials', name: 'mara', value: 'tide & reed' }, null);
    expect(sealed.accessSealed).not.toContain('tide');
    expect(accessOf({ ...sealed, url })).toEqual({
      kind: 'credentials',
      user: 'mara',
      password: 'tide & reed',
      origins: ['https://draft.host.example'],
    });
    expect(accessName(sealed)).toBe('mara');
    expect(
      accessOf({ ...sealAccess({ kind: 'cookie', name: 'look', value: '1' }, null), url }),
    ).toMatchObject({
      kind: 'cookie',
      name: 'look',
      value: '1',
    });
  });
  it('the same secret is sealed differently each time', () => {
    const of = () => sealAccess({ kind: 'parameter', name: 'a', value: 'b' }, null).accessSealed;
    expect(of()).not.toBe(of());
  });
  it('a blank secret keeps the old one of the same kind only', () => {
    const before = sealAccess({ kind: 'credentials', name: 'mara', value: 'tide' }, null);
    expect(accessOf({ ...sealAccess({ kind: 'credentials', name: 'joss' }, before), url })).toMatchObject({
      user: 'joss',
      password: 'tide',
    });
    expect(accessOf({ ...sealAccess({ kind: 'cookie', name: 'a' }, before), url })).toMatchObject({
      value: '',
    });
  });
  it('an open door keeps nothing', () => {
    expect(sealAccess({ kind: 'open' }, null)).toEqual({ access: 'open', accessSealed: null });
    expect(accessOf({ access: 'addresses', accessSealed: null, url })).toEqual({ kind: 'addresses' });
  });
  it('under another secret of the application it cannot be read, which is said', () => {
    const sealed = sealAccess({ kind: 'credentials', name: 'mara', value: 'tide' }, null);
    process.env.NUXT_SESSION_PASSWORD = 'another secret of at least thirty-two letters';
    expect(accessName(sealed)).toBeNull();
    expect(() => accessOf({ ...sealed, url })).toThrow('can no longer be read');
  });
});

describe('stored accesses by their names', () => {
  const kept = (kind: 'credentials' | 'cookie', name: string, value: string) => {
    const { access, accessSealed } = sealAccess({ kind, name, value }, null);
    return { access, accessSealed };
  };
  it('one that several environments share is one; two of a name are told apart from none', () => {
    const found = accessesByName([
      kept('credentials', 'marram', 'reed'),
      kept('credentials', 'marram', 'reed'),
      kept('cookie', 'pass', 'a'),
      kept('cookie', 'pass', 'b'),
      { access: 'open', accessSealed: null },
      { access: 'credentials', accessSealed: 'bm90IHNlYWxlZA==' },
    ]);
    expect([...found]).toEqual([
      ['marram', { kind: 'credentials', name: 'marram', value: 'reed' }],
      ['pass', null],
    ]);
  });
});
