/** What the server's routes answer, by the names that the screens use. Nothing is written twice here. */
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
export type AuditRow = Answer<'/api/environments/:id/audits'>['rows'][number];

export type ChecklistLine = Answer<'/api/checklists'>[number];
export type Assignment = Answer<'/api/checklists/:id'>['assignments'][number];
export type AssignmentKind = Assignment['kind'];

export type ClientLine = Answer<'/api/clients'>['rows'][number];

export type ReportShownData = Answer<'/api/sites/:id/report/shown'>;
export type SharedRemark = NonNullable<Answer<'/api/shared/:secret'>['shared']>['remarks'][number];
/** A part of a picture, in shares of its width and height. */
export type RemarkRegion = NonNullable<SharedRemark['region']>;

export type Job = Answer<'/api/jobs/:job'>;

export type { Version } from '#core/compare/fields';

export type SheetData = NonNullable<Answer<'/api/sites/:id/sheet'>>;
export type SheetStep = SheetData['steps'][number];
export type WatchData = NonNullable<Answer<'/api/sites/:id/watch'>>;
