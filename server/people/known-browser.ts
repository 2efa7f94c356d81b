/**
 * Browsers that have signed in before, known by a signed cookie. It opens nothing: it gives a browser places of its
 * own when it signs in again, whatever strangers do at the same account.
 */
import { createHash, createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import { getCookie, setCookie, type H3Event } from 'h3';

const COOKIE = 'armband-browser';
const YEAR_SECONDS = 365 * 86_400;
/** Accounts that one browser signs in to. */
const MOST_ACCOUNTS = 8;

interface Known {
  browser: string;
  /** Digests of the accounts that it has signed in to, the newest first. */
  accounts: string[];
}

const signature = (text: string): Buffer =>
  createHmac('sha256', process.env.NUXT_SESSION_PASSWORD ?? '')
    .update(`known browser ${text}`)
    .digest();
const accountDigest = (account: string): string =>
  createHash('sha256').update(account).digest('base64url').slice(0, 16);

function read(event: H3Event): Known | undefined {
  const [text = '', signed = ''] = (getCookie(event, COOKIE) ?? '').split('.');
  const given = Buffer.from(signed, 'base64url');
  const right = signature(text);
  if (given.length !== right.length || !timingSafeEqual(given, right)) return undefined;
  return JSON.parse(Buffer.from(text, 'base64url').toString('utf8')) as Known;
}

/** The browser that asks, where it has signed in to this account before. */
export function knownBrowser(event: H3Event, account: string): string | undefined {
  const known = read(event);
  return known?.accounts.includes(accountDigest(account)) ? known.browser : undefined;
}

/** Gives the browser its cookie once it has signed in. */
export function rememberBrowser(event: H3Event, account: string): void {
  const { browser, accounts } = read(event) ?? { browser: randomBytes(16).toString('hex'), accounts: [] };
  const digest = accountDigest(account);
  const kept: Known = {
    browser,
    accounts: [digest, ...accounts.filter((a) => a !== digest)].slice(0, MOST_ACCOUNTS),
  };
  const text = Buffer.from(JSON.stringify(kept)).toString('base64url');
  setCookie(event, COOKIE, `${text}.${signature(text).toString('base64url')}`, {
    httpOnly: true,
    sameSite: 'lax',
    secure: process.env.ARMBAND_BEHIND_HTTPS === '1',
    path: '/api',
    maxAge: YEAR_SECONDS,
  });
}
