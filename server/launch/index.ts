/** What other subjects and routes may use of launch. */
export { accountsOf, saveAccount } from './accounts';
export { connectLaunches } from './connect';
export { answerShare, siteCutOver } from './cut-over';
export {
  AccountDto,
  BeginLaunchDto,
  EndLaunchDto,
  GoDto,
  LaunchFileDto,
  LaunchTemplateDto,
  ShareAnswerDto,
  StepActDto,
  StepLookDto,
} from './dto';
export { formerAddresses } from './former';
export { actOnStep, beginLaunch, checkStep, endLaunch, go, moveLaunch } from './launches';
export { launchFile, launchLogs, launchStatistics } from './log';
export { compareNewOperator } from './new-operator';
export { siteSheet } from './sheet';
export { launchStanding } from './standing';
export { launchTemplate, launchTemplateVersions, saveLaunchTemplate } from './template';
export { beginWatch, checkWatch, endWatch, enqueueDueWatches, siteWatch } from './watch';
