/** What the server's routes answer, by the names that the screens use. Nothing is written twice here. */
import type { FieldChange } from '#core/compare/fields';
import type { Answer } from '~/composables/api';

export type RunningAudit = Answer<'/api/audits/running'>[number];

export type RosterRow = Answer<'/api/roster'>['rows'][number];
export type SiteDetail = Answer<'/api/sites/:id'>;
export type Environment = SiteDetail['environments'][number];
export type FoundSite = Answer<'/api/sites/find'>[number];

export type Ledger = NonNullable<Answer<'/api/environments/:id/ledger'>>;
export type LedgerLine = Ledger['groups'][number]['list'][number];
export type LedgerFinding = Answer<'/api/environments/:id/findings/:check'>;
export type AttestedOnce = LedgerFinding['attestations'][number];

export type FixRow = Answer<'/api/fixes'>['rows'][number];
export type FaultLine = Answer<'/api/fixes/faults'>[number];
export type FixDetail = Answer<'/api/fixes/:id'>;
export type AuditRow = Answer<'/api/environments/:id/audits'>['rows'][number];

export type ChecklistLine = Answer<'/api/checklists'>[number];
export type ChecklistDetail = Answer<'/api/checklists/:id'>;
export type Assignment = ChecklistDetail['assignments'][number];
export type AssignmentKind = Assignment['kind'];

export type ClientLine = Answer<'/api/clients'>['rows'][number];

export type ProfileLine = Answer<'/api/host-profiles'>[number];
export type ProfileDetail = Answer<'/api/host-profiles/:id'>;

export type Job = Answer<'/api/jobs/:job'>;
export type Ahead = Answer<'/api/checklists/preview/:job'>['results'][number];
export type Message = Answer<'/api/messages'>['rows'][number];

/** One version of a document with what it changed. */
export interface Version<D> {
  version: number;
  savedBy: string | null;
  savedAt: string;
  changes: FieldChange[];
  data: D;
}
