/** What the server's routes answer, by the names that the screens use. Nothing is written twice here. */
import type { FieldChange } from '#core/compare/fields';
import type { Answer } from '~/composables/api';

export type RunningAudit = Answer<'/api/audits/running'>[number];

export type RosterRow = Answer<'/api/roster'>[number];
export type SiteDetail = Answer<'/api/sites/:id'>;
export type Environment = RosterRow['environments'][number] & Partial<SiteDetail['environments'][number]>;

export type Ledger = Answer<'/api/environments/:id/ledger'>;
export type LedgerFinding = Ledger['findings'][number];
export type AttestedOnce = LedgerFinding['attestations'][number];

export type FixRow = Answer<'/api/fixes'>['rows'][number];
export type FaultLine = Answer<'/api/fixes/faults'>[number];
export type FixDetail = Answer<'/api/fixes/:id'>;
export type AuditRow = Answer<'/api/environments/:id/audits'>[number];

export type ChecklistLine = Answer<'/api/checklists'>[number];
export type ChecklistDetail = Answer<'/api/checklists/:id'>;
export type Assignment = ChecklistDetail['assignments'][number];
export type AssignmentKind = Assignment['kind'];

export type ClientLine = Answer<'/api/clients'>[number];

export type ProfileLine = Answer<'/api/host-profiles'>[number];
export type ProfileDetail = Answer<'/api/host-profiles/:id'>;

export type Job = Answer<'/api/jobs/:job'>;
export type PreviewJob = Answer<'/api/checklists/preview/:job'>;
export type Ahead = PreviewJob['results'][number];
export type Message = Answer<'/api/messages'>[number];

/** One version of a document with what it changed. */
export interface Version<D> {
  version: number;
  savedBy: string | null;
  savedAt: string;
  changes: FieldChange[];
  data: D;
}
