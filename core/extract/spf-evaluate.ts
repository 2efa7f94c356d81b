/** What SPF says of one sender address (RFC 7208 4 and 5), from answers that are at hand. */
import { rangeOf } from '#core/facts/address-ranges';
import { isSpf, ofDomain, parseSpf, tested, type SpfMechanism, type SpfQualifier } from './spf';

/** `unknown`: what decides was not asked, or rests on the sender. */
export type SpfResult = 'pass' | 'fail' | 'softfail' | 'neutral' | 'none' | 'permerror' | 'unknown';

/** What the DNS has; undefined where it was not asked. */
export interface SpfZone {
  texts(name: string): readonly string[] | undefined;
  addresses(name: string): readonly string[] | undefined;
  exchangers(name: string): readonly string[] | undefined;
}

/** A result and the term that gave it, with those that led to it. */
export interface SpfVerdict {
  result: SpfResult;
  by?: string;
}

const RESULTS: Record<SpfQualifier, SpfResult> = {
  '+': 'pass',
  '-': 'fail',
  '~': 'softfail',
  '?': 'neutral',
};
/** RFC 7208 4.6.4. */
const MOST_LOOKUPS = 10;

/** A term’s match; a string ends the evaluation with that result. */
type Match = boolean | 'unknown' | 'permerror';

class Evaluation {
  private lookups = 0;

  constructor(
    private readonly address: string,
    private readonly zone: SpfZone,
  ) {}

  of(domain: string): SpfVerdict {
    const texts = this.zone.texts(domain);
    if (!texts) return { result: 'unknown' };
    const own = texts.filter(isSpf);
    if (own.length !== 1) return { result: own.length ? 'permerror' : 'none' };
    const record = parseSpf(own[0]!);
    if (record.errors.length) return { result: 'permerror' };
    for (const m of tested(record.mechanisms)) {
      const { match, by } = this.matches(m, domain);
      if (match === 'unknown' || match === 'permerror') return { result: match, by: m.raw };
      if (match) return { result: RESULTS[m.qualifier], by: by ? `${m.raw} (${by})` : m.raw };
    }
    const redirect = record.modifiers.find((m) => m.name === 'redirect');
    if (!redirect) return { result: 'neutral' };
    if (this.counted()) return { result: 'permerror', by: redirect.raw };
    const target = ofDomain(redirect.value, domain);
    const led = target === undefined ? { result: 'unknown' as const } : this.of(target);
    return led.result === 'none' ? { result: 'permerror', by: redirect.raw } : led;
  }

  /** @returns whether that was one lookup too many */
  private counted(): boolean {
    this.lookups++;
    return this.lookups > MOST_LOOKUPS;
  }

  private matches(m: SpfMechanism, domain: string): { match: Match; by?: string } {
    if (m.name === 'all') return { match: true };
    if (m.name === 'ip4' || m.name === 'ip6') return { match: this.isIn(m.value ?? '', m) };
    if (this.counted()) return { match: 'permerror' };
    // whoever sends decides these, and no address alone
    if (m.name === 'ptr' || m.name === 'exists') return { match: 'unknown' };
    const target = m.value === undefined ? domain : ofDomain(m.value, domain);
    if (target === undefined) return { match: 'unknown' };
    if (m.name === 'include') return this.included(target);
    return { match: m.name === 'a' ? this.atName(target, m) : this.atExchangers(target, m) };
  }

  private atExchangers(target: string, m: SpfMechanism): Match {
    const exchangers = this.zone.exchangers(target);
    if (!exchangers) return 'unknown';
    if (exchangers.length > MOST_LOOKUPS) return 'permerror';
    const all = exchangers.map((name) => this.atName(name, m));
    return all.includes(true) || (all.includes('unknown') ? 'unknown' : false);
  }

  /** RFC 7208 5.2: a pass matches, a fail goes on. */
  private included(target: string): { match: Match; by?: string } {
    const { result, by } = this.of(target);
    if (result === 'pass') return { match: true, ...(by ? { by } : {}) };
    if (result === 'none' || result === 'permerror') return { match: 'permerror' };
    return { match: result === 'unknown' ? 'unknown' : false };
  }

  private atName(name: string, m: SpfMechanism): Match {
    const addresses = this.zone.addresses(name);
    return addresses ? addresses.some((address) => this.isIn(address, m)) : 'unknown';
  }

  private isIn(network: string, { cidr4, cidr6 }: SpfMechanism): boolean {
    const isSix = network.includes(':');
    if (isSix !== this.address.includes(':')) return false;
    return rangeOf(this.address, [`${network}/${isSix ? (cidr6 ?? 128) : (cidr4 ?? 32)}`]) !== undefined;
  }
}

/** @param address who sends. @returns what SPF of a domain says of it */
export const evaluateSpf = (domain: string, address: string, zone: SpfZone): SpfVerdict =>
  new Evaluation(address, zone).of(domain);
