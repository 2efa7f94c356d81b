/** What other subjects and routes may use of checklists. */
export {
  allChecklists,
  assignChecklist,
  checklistAsOf,
  checklistById,
  checklistDetail,
  checklistFor,
  checklistNamed,
  checklistVersion,
  checklistVersions,
  checklistVersionsById,
  createChecklist,
  deleteChecklist,
  ensureBuiltIn,
  listChecklists,
  reasonsToKeepChecklist,
  saveChecklist,
  sitesJudgedBy,
} from './checklists';
export { connectChecklists } from './connect';
export { AssignmentsDto, LearnDto, PreviewDto, WhichSitesDto } from './dto';
