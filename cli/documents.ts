/** Reading the JSON files that the command line takes, by their published schemas. */
import { readFileSync } from 'node:fs';
import { Ajv2020 } from 'ajv/dist/2020.js';
import type { Evidence } from '#core/facts/evidence';
import { upgradeEvidence } from '#core/facts/upgrade';
import { accessFault, type Access } from '#probe/http/access';
import { readBootstrap, type Bootstrap } from '#probe/registration/rdap';
import { UsageError } from './arguments';

const ajv = new Ajv2020({ allErrors: true, strict: false });

export type DocumentKind = 'brief' | 'host-profile' | 'checklist' | 'attestations';

function readJson(file: string): unknown {
  let text: string;
  try {
    text = readFileSync(file, 'utf8');
  } catch (error) {
    throw new UsageError(
      `${file} cannot be read: ${(error as NodeJS.ErrnoException).code === 'ENOENT' ? 'it does not exist' : (error as Error).message}`,
    );
  }
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new UsageError(`${file} is no JSON: ${(error as Error).message}`);
  }
}

/** Reads and validates a file. @throws UsageError naming the first three faults with their place */
export function readDocument<T>(file: string, kind: DocumentKind): T {
  const data = readJson(file);
  const schema = JSON.parse(
    readFileSync(new URL(`../docs/schemas/${kind}.schema.json`, import.meta.url), 'utf8'),
  ) as object;
  const validate = ajv.compile(schema);
  if (!validate(data)) {
    const faults = (validate.errors ?? [])
      .slice(0, 3)
      .map(
        (e) =>
          `${e.instancePath || 'the whole'} ${e.message}${e.params && 'additionalProperty' in e.params ? ` (${String(e.params.additionalProperty)})` : ''}`,
      );
    throw new UsageError(`${file} is no ${kind}: ${faults.join('; ')}`);
  }
  return data as T;
}

/**
 * Reads stored evidence, brought up to the present version.
 * @throws UsageError when it is none or of a later version
 */
export function readEvidence(file: string): Evidence {
  try {
    return upgradeEvidence(readJson(file));
  } catch (error) {
    if (error instanceof UsageError) throw error;
    throw new UsageError(`${file}: ${(error as Error).message}`);
  }
}

/**
 * Reads how to get in. It stands in a file, since words on the command line can be seen by everybody on the
 * machine.
 * @throws UsageError
 */
export function readAccess(file: string, origin: string): Access {
  const data = readJson(file) as Record<string, unknown> | null;
  const text = (name: string): string => {
    const v = data?.[name];
    if (typeof v !== 'string' || !v || v.length > 500) throw new UsageError(`${file}: “${name}” is missing`);
    return v;
  };
  const checked = (access: Access): Access => {
    const fault = accessFault(access);
    if (fault) throw new UsageError(`${file}: ${fault}`);
    return access;
  };
  if (data?.kind === 'credentials')
    return checked({
      kind: 'credentials',
      user: text('user'),
      password: text('password'),
      origins: [origin],
    });
  if (data?.kind === 'parameter' || data?.kind === 'cookie')
    return checked({ kind: data.kind, name: text('name'), value: text('value'), origins: [origin] });
  throw new UsageError(`${file}: “kind” is credentials, parameter or cookie`);
}

/** Reads a bootstrap file. @throws UsageError */
export function readBootstrapFile(file: string): Bootstrap {
  try {
    return readBootstrap(readJson(file));
  } catch (error) {
    throw new UsageError(
      error instanceof UsageError ? error.message : `${file}: ${(error as Error).message}`,
    );
  }
}
