/** The way into a place, kept sealed: whoever reads the database alone cannot get in. */
import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto';
import type { WayIn } from '#probe/http/way-in';
import type { Environment } from './models';
import type { WayInDto } from '#core/entry/site';

interface Secret {
  name: string;
  value: string;
}

const ALGORITHM = 'aes-256-gcm';
/** From the application's one secret; another purpose gives another key. */
function key(): Buffer {
  const secret = process.env.NUXT_SESSION_PASSWORD;
  if (!secret) throw new Error('NUXT_SESSION_PASSWORD is not set');
  return Buffer.from(hkdfSync('sha256', secret, '', 'armband way in', 32));
}

function seal(secret: Secret): string {
  const iv = randomBytes(12);
  const cipher = createCipheriv(ALGORITHM, key(), iv);
  return Buffer.concat([
    iv,
    cipher.update(JSON.stringify(secret), 'utf8'),
    cipher.final(),
    cipher.getAuthTag(),
  ]).toString('base64');
}

/** @returns null when it was sealed under another secret */
function unseal(text: string): Secret | null {
  try {
    const bytes = Buffer.from(text, 'base64');
    const decipher = createDecipheriv(ALGORITHM, key(), bytes.subarray(0, 12));
    decipher.setAuthTag(bytes.subarray(-16));
    return JSON.parse(
      decipher.update(bytes.subarray(12, -16), undefined, 'utf8') + decipher.final('utf8'),
    ) as Secret;
  } catch {
    return null;
  }
}

/** The columns for a way in. A secret left blank keeps the one that is there. */
export function sealWayIn(
  input: WayInDto,
  before: Pick<Environment, 'wayIn' | 'wayInSealed'> | null,
): { wayIn: Environment['wayIn']; wayInSealed: string | null } {
  if (input.kind === 'open' || input.kind === 'addresses') return { wayIn: input.kind, wayInSealed: null };
  const old = before?.wayIn === input.kind && before.wayInSealed ? unseal(before.wayInSealed) : null;
  return {
    wayIn: input.kind,
    wayInSealed: seal({ name: input.name ?? old?.name ?? '', value: input.value || (old?.value ?? '') }),
  };
}

/** What the screen may show: who or what is asked for, never the secret. */
export function wayInName(e: Pick<Environment, 'wayInSealed'>): string | null {
  return e.wayInSealed ? (unseal(e.wayInSealed)?.name ?? null) : null;
}

/** The way in as the probe takes it. @throws Error when the secret it was sealed under has changed */
export function wayInOf(e: Pick<Environment, 'wayIn' | 'wayInSealed' | 'url'>): WayIn {
  if (e.wayIn === 'open' || e.wayIn === 'addresses') return { kind: e.wayIn };
  const secret = e.wayInSealed ? unseal(e.wayInSealed) : null;
  if (!secret)
    throw new Error(
      'the way into this place can no longer be read: the application\u2019s secret has changed. Enter it again under Places',
    );
  const origins = [new URL(e.url).origin];
  return e.wayIn === 'credentials'
    ? { kind: 'credentials', user: secret.name, password: secret.value, origins }
    : { kind: e.wayIn, ...secret, origins };
}
