/** A resolver that keeps answers for their TTL, as resolvers of providers do. */
import type { Answerer, ZoneAnswer } from './dns-server';

interface KeptAnswer {
  answer: ZoneAnswer;
  /** Milliseconds. */
  at: number;
  seconds: number;
}

/** How long a name is known not to be there: the minimum of the practice zones’ SOA (RFC 2308 5). */
const NEGATIVE_SECONDS = 3600;
const MOST_KEPT = 5000;

/**
 * @param ask where it asks what it does not know
 * @param now milliseconds of the practice clock
 * @param stretch how many times the TTL it keeps an answer; more than 1 breaks the rules
 */
export function cachingAnswerer(ask: Answerer, now: () => number, stretch = 1): Answerer {
  const kept = new Map<string, KeptAnswer>();
  return (name, type, flags) => {
    const key = `${name} ${type} ${flags.checkingDisabled}`;
    const known = kept.get(key);
    const age = known ? (now() - known.at) / 1000 : 0;
    if (known && age < known.seconds * stretch) return aged(known.answer, age);
    const answer = ask(name, type, flags);
    const seconds = answer.records.length ? Math.min(...answer.records.map((r) => r.ttl)) : NEGATIVE_SECONDS;
    if (kept.size > MOST_KEPT) kept.clear();
    // what failed is asked for again
    if (answer.rcode === 0 || answer.rcode === 3) kept.set(key, { answer, at: now(), seconds });
    return answer;
  };
}

/** TTLs count down (RFC 1035 7.3); one that is over shows as 0. */
const aged = (answer: ZoneAnswer, age: number): ZoneAnswer => ({
  ...answer,
  records: answer.records.map((r) => ({ ...r, ttl: Math.max(0, Math.ceil(r.ttl - age)) })),
});
