/** What the server's routes answer, as the screens read it. */
import type { FieldChange } from '#core/compare/fields';
import type { Help } from '#core/score/help';
import type { Checklist } from '#core/facts/checklist';
import type { HostProfile } from '#core/facts/host-profile';
import type { Finding, Section, Severity } from '#core/facts/finding';
import type { FixState } from '#core/facts/fix';
import type { WayInKind } from '#core/facts/evidence';
import type { Brief } from '#core/facts/brief';
import type { BandSegment, Gate, Result, Term } from '#core/score/score';
import type { EnvironmentKind, Situation, Stage } from '#core/facts/situation';

export interface RunningAudit {
  id: number;
  environmentId: number;
  siteId: number;
  site: string;
  environment: string;
  status: string;
  phase: string;
  done: number;
  total: number;
  current?: string;
}

export interface PlaceAudit {
  id: number;
  at: string;
  score: number | null;
  scoreBefore: number | null;
  scoreAsFound?: number | null;
  coverage: number | null;
  provisional: boolean;
  gate: Gate;
  gateNote: string;
  band: BandSegment[];
  blockers: number;
}
export interface Place {
  id: number;
  name: string;
  kind: EnvironmentKind;
  url: string;
  situation: Situation | null;
  audit: PlaceAudit | null;
  openFixes: number;
  wayIn?: WayInKind;
  wayInName?: string | null;
  setUpOn?: string | null;
  changedOn?: string | null;
  endsOn?: string | null;
}
export interface RosterRow {
  id: number;
  name: string;
  client: string;
  stage: Stage;
  replaces: boolean;
  launchDate: string | null;
  hostProfile: string | null;
  places: Place[];
  shown: number;
}
export interface SiteDetail extends RosterRow {
  brief: { version: number; data: Brief; savedBy: string; savedAt: string } | null;
}

/** One version of a document with what it changed. */
export interface Version<D> {
  version: number;
  savedBy: string | null;
  savedAt: string;
  changes: FieldChange[];
  data: D;
}

export interface AttestedOnce {
  by: string;
  at: string;
  done: boolean;
  doesNotApply: boolean;
  note: string | null;
  place: string | null;
  goodUntil: string | null;
  goodWhile: string | null;
  file: { id: number; name: string; type: string; bytes: number } | null;
}

export interface LedgerFinding extends Finding {
  why: string;
  source: string;
  scope: string;
  placeCount: number;
  note?: string;
  attestedForDays: number | null;
  attestations: AttestedOnce[];
  recipe?: { steps: string; paste?: { label: string; text: string }[] };
  fix: { id: number; state: FixState; owner: string | null; dueDate: string | null; returns: number } | null;
  acceptance: {
    id: number;
    reason: string;
    until: string;
    by: string;
    byId: number;
    seconded: string | null;
  } | null;
}
export interface Ledger {
  audit: {
    id: number;
    at: string | null;
    by: string;
    situation: Situation;
    result: Result;
    checklist: string;
  } | null;
  findings: LedgerFinding[];
  help: Help[];
  terms: { terms: Term[]; earned: string; possible: string } | null;
  notes: string[];
}

export interface FixRow {
  id: number;
  check: string;
  title: string;
  section: string;
  severity: string;
  state: FixState;
  places: number;
  firstPlace: string;
  returns: number;
  owner: string | null;
  ownerId: number | null;
  dueDate: string | null;
  openedAt: string;
  changedAt: string;
  siteId: number;
  site: string;
  client: string;
  environmentId: number;
  environment: string;
}
export interface FixDetail {
  id: number;
  check: string;
  state: FixState;
  ownerId: number | null;
  dueDate: string | null;
  places: { place: string; found?: string }[];
  returns: number;
  openedAt: string;
  events: {
    id: number;
    kind: string;
    by: string;
    at: string;
    from: FixState | null;
    to: FixState | null;
    text: string | null;
  }[];
}
export interface AuditRow {
  id: number;
  auditId: number;
  cause: string;
  scoreBefore: number | null;
  reasons: string[];
  judgedBy: {
    brief: number | null;
    checklist: string | null;
    profile: number | null;
    catalogue: string | null;
    evidence: number | null;
  } | null;
  status: string;
  situation: Situation;
  at: string;
  by: string;
  score: number | null;
  coverage: number | null;
  gate: Gate | null;
  gateNote: string | null;
  provisional: boolean;
  band: BandSegment[] | null;
  error: string | null;
}

export interface CatalogueCheck {
  id: string;
  title: string;
  section: Section;
  severity: Severity;
  source: string;
  why: string;
  situations: Situation[];
  byHand: boolean;
  parameters: Record<string, { default: number; min: number; max: number; unit: string; meaning: string }>;
}
export type AssignmentKind = 'site' | 'client' | 'host' | 'default';
export interface Assignment {
  kind: AssignmentKind;
  target: string;
  title: string;
}
export interface ChecklistLine {
  id: number;
  name: string;
  builtIn: boolean;
  version: number;
  savedBy: string | null;
  savedAt: string;
  description: string;
  checks: number;
  own: number;
  assignments: Assignment[];
}
export interface ChecklistDetail {
  id: number;
  name: string;
  builtIn: boolean;
  checklist: Checklist;
  sites: { id: number; name: string }[];
  versions: { version: number; savedBy: string | null; savedAt: string; data: Checklist }[];
  assignments: Assignment[];
}
export interface ProfileLine {
  name: string;
  version: number;
  savedBy: string | null;
  savedAt: string;
  sites: number;
  profile: HostProfile;
}
export interface ProfileDetail {
  name: string;
  version: number;
  profile: HostProfile;
  sites: { id: number; name: string }[];
  versions: Version<HostProfile>[];
}
export interface Ahead {
  environmentId: number;
  siteId: number;
  site: string;
  place: string;
  before: { score: number | null; gate: Gate | null };
  after: { score: number | null; gate: Gate };
  changes: { check: string; title: string; from: string; to: string }[];
}
export interface Job<R = unknown> {
  id: string;
  title: string;
  done: number;
  total: number;
  status: 'running' | 'done' | 'stopped' | 'failed';
  startedBy: string;
  error?: string;
  results: R[];
}
export interface Message {
  id: number;
  text: string;
  link: string;
  at: string;
  read: boolean;
}
