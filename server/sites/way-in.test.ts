import { beforeEach, describe, expect, it } from 'vitest';
import { sealWayIn, wayInName, wayInOf } from './way-in';

beforeEach(() => {
  process.env.NUXT_SESSION_PASSWORD = 'a secret of at least thirty-two letters';
});
const url = 'https://draft.host.example/x/';

describe('a way in', () => {
  it('comes back as it was given, for the environment’s own origin', () => {
    const sealed = sealWayIn({ kind: 'credentials', name: 'mara', value: 'tide & reed' }, null);
    expect(sealed.wayInSealed).not.toContain('tide');
    expect(wayInOf({ ...sealed, url })).toEqual({
      kind: 'credentials',
      user: 'mara',
      password: 'tide & reed',
      origins: ['https://draft.host.example'],
    });
    expect(wayInName(sealed)).toBe('mara');
    expect(wayInOf({ ...sealWayIn({ kind: 'cookie', name: 'look', value: '1' }, null), url })).toMatchObject({
      kind: 'cookie',
      name: 'look',
      value: '1',
    });
  });
  it('the same secret is sealed differently each time', () => {
    const of = () => sealWayIn({ kind: 'parameter', name: 'a', value: 'b' }, null).wayInSealed;
    expect(of()).not.toBe(of());
  });
  it('a blank secret keeps the old one of the same kind only', () => {
    const before = sealWayIn({ kind: 'credentials', name: 'mara', value: 'tide' }, null);
    expect(wayInOf({ ...sealWayIn({ kind: 'credentials', name: 'joss' }, before), url })).toMatchObject({
      user: 'joss',
      password: 'tide',
    });
    expect(wayInOf({ ...sealWayIn({ kind: 'cookie', name: 'a' }, before), url })).toMatchObject({
      value: '',
    });
  });
  it('an open door keeps nothing', () => {
    expect(sealWayIn({ kind: 'open' }, null)).toEqual({ wayIn: 'open', wayInSealed: null });
    expect(wayInOf({ wayIn: 'addresses', wayInSealed: null, url })).toEqual({ kind: 'addresses' });
  });
  it('under another secret of the application it cannot be read, which is said', () => {
    const sealed = sealWayIn({ kind: 'credentials', name: 'mara', value: 'tide' }, null);
    process.env.NUXT_SESSION_PASSWORD = 'another secret of at least thirty-two letters';
    expect(wayInName(sealed)).toBeNull();
    expect(() => wayInOf({ ...sealed, url })).toThrow('can no longer be read');
  });
});
