/** What other subjects and routes may use of reports. */
export { approvalsOf, withdrawApproval } from './approvals';
export { composed, draftOf, edition, editionsOf, publish, saveDraft } from './composing';
export { connectReports } from './connect';
export {
  AnswerDto,
  DraftDto,
  LinkDto,
  OpenDto,
  PublishDto,
  ReasonDto,
  RemarkDto,
  RemarkFixDto,
  ShownOfDto,
  TemplateDto,
  YesDto,
} from './dto';
export { createLink, guestOf, linkStatus, linksOf, openLink, revokeLink } from './links';
export { remarkOfFix } from './remark-of-fix';
export { answerRemark, remarkToFix, remarksOf } from './remarks';
export { sendPdf } from './send-pdf';
export { approveByGuest, remarkByGuest, sharedPicture, sharedWith, withdrawByGuest } from './shared';
export { MOST_LOGO_BYTES, logo, saveLogo, saveTemplate, template } from './template';
