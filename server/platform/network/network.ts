/** How this installation reaches the network, from the environment. */
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { USUAL_PAGES } from '#core/facts/page-limit';
import { AddressMap } from '#probe/addresses';
import { AGENT, type CollectOptions } from '#probe/collect';
import { readBootstrap } from '#probe/registration/rdap';
import { TrustStore } from '#probe/tls';
import { onShutdown } from '#server/platform/shutdown';
import { serverReaders } from './extraction';
import { HostPermits } from './host-permits';

export type NetworkSettings = Pick<
  CollectOptions,
  | 'resolvers'
  | 'map'
  | 'allowPrivate'
  | 'timeoutMs'
  | 'maxPages'
  | 'agent'
  | 'store'
  | 'bootstrap'
  | 'retryPauseMs'
  | 'gate'
  | 'concurrency'
  | 'extract'
  | 'readFile'
  | 'forbidden'
>;

let settings: NetworkSettings | undefined;
let permits: HostPermits | undefined;

// what this process has of others' patience is given back
onShutdown(() => permits?.close());

/** The items of a comma list. */
export const list = (text: string | undefined): string[] =>
  (text ?? '')
    .split(',')
    .map((s) => s.trim())
    .filter(Boolean);

/** @throws Error for what is no number of nought or more */
export function numberOf(name: string, usual: number): number {
  const text = process.env[name];
  if (text === undefined || text.trim() === '') return usual;
  const value = Number(text);
  if (!(value >= 0 && Number.isFinite(value))) throw new Error(`${name} must be a number; it is “${text}”.`);
  return value;
}

/**
 * ARMBAND_RESOLVERS, _MAP (comma lists), _CA (PEM file), _ALLOW_PRIVATE=1, _TIMEOUT (seconds), _PAGES,
 * _AGENT, _DELAY (ms between two requests to a host), _CONCURRENCY (requests at once to a host),
 * _RDAP_BOOTSTRAP (file), _FORBIDDEN (addresses and ranges that are never dialled). Read once.
 * @throws Error for what cannot be read
 */
export function networkSettings(): NetworkSettings {
  if (settings) return settings;
  const env = process.env;
  const concurrency = Math.max(1, Math.floor(numberOf('ARMBAND_CONCURRENCY', 6)));
  permits = new HostPermits({
    holder: randomUUID(),
    limit: concurrency,
    delayMs: numberOf('ARMBAND_DELAY', 0),
  });
  settings = {
    resolvers: list(env.ARMBAND_RESOLVERS),
    map: new AddressMap(list(env.ARMBAND_MAP)),
    allowPrivate: env.ARMBAND_ALLOW_PRIVATE === '1',
    timeoutMs: numberOf('ARMBAND_TIMEOUT', 15) * 1000,
    maxPages: numberOf('ARMBAND_PAGES', USUAL_PAGES),
    agent: env.ARMBAND_AGENT ?? AGENT,
    concurrency,
    gate: permits,
    forbidden: list(env.ARMBAND_FORBIDDEN).map((a) =>
      a.includes('/') ? a : `${a}/${a.includes(':') ? 128 : 32}`,
    ),
    ...serverReaders(),
    store: new TrustStore(list(env.ARMBAND_CA).map((file) => readFileSync(file, 'utf8'))),
    ...(env.ARMBAND_RDAP_BOOTSTRAP
      ? { bootstrap: readBootstrap(JSON.parse(readFileSync(env.ARMBAND_RDAP_BOOTSTRAP, 'utf8'))) }
      : {}),
  };
  return settings;
}
