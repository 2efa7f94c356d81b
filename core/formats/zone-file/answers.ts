import type { DnsAnswer } from '#core/facts/evidence';
import type { ZoneFileRecord } from './records';

const FOLLOWED = ['A', 'AAAA'];
/** Longer chains of aliases nobody follows. */
const MOST_ALIASES = 8;

/** The answers of a resolver, one for each name and type. */
class Answers {
  private readonly sets = new Map<string, DnsAnswer>();

  constructor(private readonly server: string) {}

  add(name: string, type: string, r: ZoneFileRecord): void {
    const { records } = this.answerTo(name, type);
    if (!records.some((x) => x.name === r.name && x.type === r.type && x.value === r.value))
      records.push({ name: r.name, type: r.type, ttl: r.ttl ?? 3600, value: r.value });
  }

  all(): DnsAnswer[] {
    return [...this.sets.values()];
  }

  private answerTo(name: string, type: string): DnsAnswer {
    const key = `${name} ${type}`;
    const known = this.sets.get(key);
    if (known) return known;
    const made: DnsAnswer = {
      server: this.server,
      role: 'resolver',
      name,
      type,
      rcode: 'NOERROR',
      authoritative: false,
      authenticated: false,
      transport: 'udp',
      records: [],
      ms: 0,
    };
    this.sets.set(key, made);
    return made;
  }
}

/** Records as the answers of a resolver, which follows aliases; for evidence that has none of its own. */
export function answersFromZone(records: readonly ZoneFileRecord[], server: string): DnsAnswer[] {
  const answers = new Answers(server);
  for (const r of records) answers.add(r.name, r.type, r);
  for (const alias of records.filter((r) => r.type === 'CNAME')) {
    let at: ZoneFileRecord | undefined = alias;
    for (let step = 0; at && step < MOST_ALIASES; step++) {
      const target: string = at.value.toLowerCase();
      for (const found of records.filter((r) => r.name === target && FOLLOWED.includes(r.type))) {
        answers.add(alias.name, found.type, alias);
        answers.add(alias.name, found.type, found);
      }
      at = records.find((r) => r.name === target && r.type === 'CNAME');
    }
  }
  return answers.all();
}
