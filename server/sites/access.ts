/** The access to an environment, kept sealed: whoever reads the database alone cannot get in. */
import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto';
import type { AccessDto } from '#core/entry/site';
import type { Access } from '#probe/http/access';
import type { Environment } from './models';

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

/** Anything that must not be read by whoever sees the database. */
export function encryptSecret(secret: object): string {
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
export function decryptSecret<T extends object>(text: string): T | null {
  try {
    const bytes = Buffer.from(text, 'base64');
    const decipher = createDecipheriv(ALGORITHM, key(), bytes.subarray(0, 12));
    decipher.setAuthTag(bytes.subarray(-16));
    return JSON.parse(
      decipher.update(bytes.subarray(12, -16), undefined, 'utf8') + decipher.final('utf8'),
    ) as T;
  } catch {
    return null;
  }
}

/** The columns for an access. A secret left blank keeps the one that is there. */
export function sealAccess(
  input: AccessDto,
  before: Pick<Environment, 'access' | 'accessSealed'> | null,
): { access: Environment['access']; accessSealed: string | null } {
  if (input.kind === 'open' || input.kind === 'addresses') return { access: input.kind, accessSealed: null };
  const old =
    before?.access === input.kind && before.accessSealed ? decryptSecret<Secret>(before.accessSealed) : null;
  return {
    access: input.kind,
    accessSealed: encryptSecret({
      name: input.name ?? old?.name ?? '',
      value: input.value || (old?.value ?? ''),
    }),
  };
}

/** What the screen may show: who or what is asked for, never the secret. */
export function accessName(e: Pick<Environment, 'accessSealed'>): string | null {
  return e.accessSealed ? (decryptSecret<Secret>(e.accessSealed)?.name ?? null) : null;
}

/** The access as the probe takes it. @throws Error when the secret it was sealed under has changed */
export function accessOf(e: Pick<Environment, 'access' | 'accessSealed' | 'url'>): Access {
  if (e.access === 'open' || e.access === 'addresses') return { kind: e.access };
  const secret = e.accessSealed ? decryptSecret<Secret>(e.accessSealed) : null;
  if (!secret)
    throw new Error(
      'the access to this environment can no longer be read: the application\u2019s secret has changed. Enter it again under Edit site',
    );
  const origins = [new URL(e.url).origin];
  return e.access === 'credentials'
    ? { kind: 'credentials', user: secret.name, password: secret.value, origins }
    : { kind: e.access, ...secret, origins };
}

/**
 * What is kept, by its name (user, parameter or cookie), for giving it to another environment.
 * @returns null where more than one access has the name
 */
export function accessesByName(
  environments: readonly Pick<Environment, 'access' | 'accessSealed'>[],
): Map<string, AccessDto | null> {
  const out = new Map<string, AccessDto | null>();
  for (const { access: kind, accessSealed } of environments) {
    const secret = accessSealed ? decryptSecret<Secret>(accessSealed) : null;
    if (!secret?.name) continue;
    const known = out.get(secret.name);
    const isSame = known !== null && known?.kind === kind && known.value === secret.value;
    out.set(secret.name, known === undefined || isSame ? { kind, ...secret } : null);
  }
  return out;
}
