/** What other subjects and routes may use of audits. */
export { changeByFinding } from './adopting';
export { attest, saveAttachment } from './attesting';
export {
  type Started,
  auditJob,
  auditProgress,
  builtFiles,
  deleteAudit,
  reasonsToKeepAudits,
  requeueOrphans,
  runningAudits,
  startAudits,
  stopAudit,
} from './audits';
export { blanksIn } from './blanks';
export { commandsAt } from './commands';
export { connectAudits } from './connect';
export {
  AttestDto,
  CommandsDto,
  FindingsFileDto,
  FoldedDto,
  HistoryDto,
  LedgerDto,
  PageDto,
  PlacesDto,
  SeenPictureDto,
  StartAuditsDto,
} from './dto';
export { auditDurations } from './durations';
export { EVIDENCE_FORMATS, type EvidenceFormat, evidenceFile } from './evidence-files';
export {
  auditIn,
  auditsByIds,
  doneAttestations,
  evidenceOfAudits,
  failedFindings,
  findAudit,
  findEvidence,
  findFinding,
  findFindings,
  findingsOf,
  findingsOfChecks,
  finishedAudits,
  firstAudit,
  getAudit,
  hasEvidence,
  isAnythingAuditing,
  isAttestedAnew,
  isAuditing,
  lapsedAttestations,
  lastAuditAs,
  newestAttestations,
  newestVerdictId,
  noteAttestationTold,
  openBlockers,
  picturesOfAudit,
  storePages,
  storedPages,
} from './find';
export { findingsFile } from './findings-files';
export { historyOf } from './history';
export { judgeEnvironment, judgeInputs } from './judge-environment';
export { changeBrief, changeProfile, changeSite } from './judged-changes';
export { lastEvidence } from './last-evidence';
export type { AttestationRow, Audit, AuditEvidence, FindingRow } from './models';
export { reevaluate, reevaluateSite } from './reevaluate';
export { previewOf, reevaluateAfterUpdate, startPreview, startReevaluating } from './reevaluation-jobs';
export { browserSettings } from './rendering';
export { type SavedVerdict, beforeJudging, verdictSaved } from './save-verdict';
export { type Scope, partsOfScope } from './scope';
export { seenPages, seenPicture } from './seen';
