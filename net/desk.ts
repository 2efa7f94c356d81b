/**
 * What a practice site’s owner does at the registrar, the DNS operator and the host: the zone as it was saved, with
 * the time that each server takes to follow, and what the host was told. Remembered beside the switches.
 */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import type { ZoneRecord } from './dns-server';
import { SITES, type PracticeSite } from './sites';
import { parseZone } from './zone-text';

/** Who answers for a zone, as far as it matters when it follows. */
export type Follower = 'first' | 'second';

interface SavedZone {
  /** Milliseconds of the practice clock. */
  at: number;
  records: ZoneRecord[];
}

/** What is set at a site’s accounts. */
export interface DeskState {
  /** Versions of the zone, the oldest first; none while nobody has saved it. */
  zones: SavedZone[];
  /** Minutes until the operator’s servers have a saved zone. */
  slowMinutes: number;
  /** Minutes that the second server is behind the first. */
  lagMinutes: number;
  /** The operator takes no change. */
  refuses: boolean;
  /** The zone above names the new name servers. */
  isMoved: boolean;
  hostTold: boolean;
  holdingUp: boolean;
}

export type DeskChange = Partial<Omit<DeskState, 'zones'>> & { zone?: string };

const MINUTE_MS = 60_000;
const MOST_ZONES = 20;
/** Types that the operator keeps itself. */
const OWN_TYPES = new Set(['SOA', 'NS', 'DNSKEY']);
const LONGEST_DELAY = 10_080;
const FLAGS = ['refuses', 'isMoved', 'hostTold', 'holdingUp'] as const;
const MINUTES = ['slowMinutes', 'lagMinutes'] as const;

/** As it is before anybody has touched it. */
function atFirst(s: PracticeSite): DeskState {
  const isLaunched = s.stage === 'launched';
  return {
    zones: [],
    slowMinutes: 0,
    lagMinutes: 0,
    refuses: false,
    isMoved: false,
    // a site to be replaced runs elsewhere, and the new host has not heard of it
    hostTold: isLaunched || !s.replaces,
    holdingUp: !isLaunched && !s.replaces,
  };
}

export class Desk {
  private readonly states = new Map<string, DeskState>();

  /** @param now milliseconds of the practice clock */
  constructor(
    private readonly file: string | undefined,
    private readonly now: () => number,
  ) {
    if (file && existsSync(file))
      for (const [slug, state] of JSON.parse(readFileSync(file, 'utf8')) as [string, DeskState][])
        this.states.set(slug, state);
  }

  of(s: PracticeSite): DeskState {
    return this.states.get(s.slug) ?? atFirst(s);
  }

  /** Whether the site itself stands at the live address: it is launched, or was put there here. */
  isOpen(s: PracticeSite): boolean {
    return (
      s.stage === 'launched' || (this.states.has(s.slug) && !this.of(s).holdingUp && this.of(s).hostTold)
    );
  }

  /** The zone as one server has it now; what the operator keeps itself stays. */
  zoneFor(s: PracticeSite, who: Follower, base: ZoneRecord[]): ZoneRecord[] {
    const { zones, slowMinutes, lagMinutes } = this.of(s);
    const delay = (slowMinutes + (who === 'second' ? lagMinutes : 0)) * MINUTE_MS;
    const newest = zones.filter((z) => z.at + delay <= this.now()).at(-1);
    return newest ? [...base.filter((r) => OWN_TYPES.has(r.type)), ...newest.records] : base;
  }

  /** The zone as its owner sees it in the operator’s form: what was saved last, whoever has it. */
  form(s: PracticeSite, base: ZoneRecord[]): ZoneRecord[] {
    return this.of(s).zones.at(-1)?.records ?? base.filter((r) => !OWN_TYPES.has(r.type));
  }

  /** @throws RangeError where the operator does not take it, or it is no zone */
  change(slug: string, change: DeskChange): void {
    const site = SITES.find((s) => s.slug === slug);
    if (!site) throw new RangeError('no such site');
    const state = structuredClone(this.of(site));
    for (const flag of FLAGS) if (typeof change[flag] === 'boolean') state[flag] = change[flag];
    for (const field of MINUTES) {
      const value = change[field];
      if (value === undefined) continue;
      if (!(value >= 0 && value <= LONGEST_DELAY)) throw new RangeError('minutes are from 0 to a week');
      state[field] = value;
    }
    if (change.zone !== undefined) {
      if (state.refuses) throw new RangeError('The operator refuses the change: the zone is locked.');
      const records = parseZone(change.zone, site.domain);
      state.zones = [...state.zones, { at: this.now(), records }].slice(-MOST_ZONES);
    }
    this.states.set(slug, state);
    if (this.file) writeFileSync(this.file, JSON.stringify([...this.states]));
  }
}
