/** What the server's routes answer, as the screens read it. */
import type { Finding } from '#core/facts/finding';
import type { FixState } from '#core/facts/fix';
import type { WayInKind } from '#core/facts/evidence';
import type { Brief } from '#core/facts/brief';
import type { BandSegment, Gate, Result, Term } from '#core/score/score';
import type { EnvironmentKind, Situation, Stage } from '#core/facts/situation';

export interface RunningAudit { id: number; environmentId: number; siteId: number; site: string; environment: string; status: string; phase: string; done: number; total: number; current?: string }

export interface PlaceAudit { id: number; at: string; score: number | null; scoreBefore: number | null; scoreAsFound?: number | null; coverage: number | null; provisional: boolean; gate: Gate; gateNote: string; band: BandSegment[]; blockers: number }
export interface Place { id: number; name: string; kind: EnvironmentKind; url: string; situation: Situation | null; audit: PlaceAudit | null; openFixes: number; wayIn?: WayInKind; wayInName?: string | null; setUpOn?: string | null; changedOn?: string | null; endsOn?: string | null }
export interface RosterRow { id: number; name: string; client: string; stage: Stage; replaces: boolean; launchDate: string | null; hostProfile: string | null; places: Place[]; shown: number }
export interface SiteDetail extends RosterRow { brief: { version: number; data: Brief; savedBy: string; savedAt: string } | null }

export interface LedgerFinding extends Finding {
  why: string; source: string; scope: string; placeCount: number;
  recipe?: { steps: string; paste?: { label: string; text: string }[] };
  fix: { id: number; state: FixState; owner: string | null; dueDate: string | null; returns: number } | null;
  acceptance: { id: number; reason: string; until: string; by: string; byId: number; seconded: string | null } | null;
}
export interface Ledger { audit: { id: number; at: string | null; by: string; situation: Situation; result: Result } | null; findings: LedgerFinding[]; terms: { terms: Term[]; earned: string; possible: string } | null; notes: string[] }

export interface FixRow { id: number; check: string; title: string; section: string; severity: string; state: FixState; places: number; firstPlace: string; returns: number; owner: string | null; ownerId: number | null; dueDate: string | null; openedAt: string; changedAt: string; siteId: number; site: string; client: string; environmentId: number; environment: string }
export interface FixDetail { id: number; check: string; state: FixState; ownerId: number | null; dueDate: string | null; places: { place: string; found?: string }[]; returns: number; openedAt: string; events: { id: number; kind: string; by: string; at: string; from: FixState | null; to: FixState | null; text: string | null }[] }
export interface AuditRow { id: number; status: string; situation: Situation; at: string; by: string; score: number | null; coverage: number | null; gate: Gate | null; gateNote: string | null; provisional: boolean; band: BandSegment[] | null; error: string | null }
