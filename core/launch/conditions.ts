/** Which steps belong on the sheet of a site: what holds of it, from its brief and what is seen now. */
import type { Brief } from '#core/facts/brief';
import type { Evidence } from '#core/facts/evidence';
import { CONDITION_NAMES, type Condition } from '#core/facts/launch';
import { serversDiffer } from './cut-over';

export interface LaunchFacts {
  replaces: boolean;
  /** With the host’s records, where it names none. */
  brief: Brief;
  /** The live address as it was seen last. */
  live?: Pick<Evidence, 'dns' | 'registration'> | null;
  isHolding: boolean;
  hasBefore: boolean;
  stagingEnds: boolean;
  hasBuild: boolean;
}

/** Whether the zone is to be served by others than today. */
const nameServersMove = ({ brief, live }: Pick<LaunchFacts, 'brief' | 'live'>): boolean =>
  serversDiffer(
    (live?.dns.nameServers ?? []).map((s) => s.name),
    brief.nameServers ?? [],
  );

const sees = (live: LaunchFacts['live'], type: string, isIt: (value: string) => boolean = () => true) =>
  (live?.dns.answers ?? []).some((a) => a.records.some((r) => r.type === type && isIt(r.value)));

const TESTS: Record<Condition, (facts: LaunchFacts) => boolean> = {
  always: () => true,
  replaces: (f) => f.replaces,
  new: (f) => !f.replaces,
  records: (f) => f.brief.reachedBy !== 'forwarding' && !nameServersMove(f),
  addressed: (f) => f.brief.reachedBy !== 'forwarding',
  forwarding: (f) => f.brief.reachedBy === 'forwarding',
  moves: nameServersMove,
  transfers: ({ brief, live }) => {
    const today = live?.registration?.registrar;
    return Boolean(brief.registrar && today && brief.registrar.toLowerCase() !== today.toLowerCase());
  },
  signed: (f) => sees(f.live, 'DS'),
  // a null MX says that there is none (RFC 7505)
  mail: ({ brief, live }) =>
    brief.mail ? brief.mail === 'yes' : sees(live, 'MX', (value) => !/^0 \.?$/.test(value)),
  holding: (f) => f.isHolding,
  tokens: (f) => (f.brief.tokens ?? []).length > 0,
  measured: (f) => (f.brief.analyticsIds ?? []).length > 0,
  consent: (f) => Boolean(f.brief.consentScript),
  former: (f) => (f.brief.formerAddresses ?? []).length > 0,
  staging: (f) => f.hasBefore,
  'staging ends': (f) => f.hasBefore && f.stagingEnds,
  build: (f) => f.hasBuild,
};

/** What holds of a site at its launch. */
export const conditionsOf = (facts: LaunchFacts): ReadonlySet<Condition> =>
  new Set(CONDITION_NAMES.filter((name) => TESTS[name](facts)));
