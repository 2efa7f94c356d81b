/** What other subjects and routes may use of sites. */
export { accessName, accessOf } from './access';
export { briefForChecks, briefVersions, changeBackTo, newestBrief, saveBrief } from './briefs';
export { alikeTo, listClients, mergeClients, renameClient } from './clients';
export { connectSites } from './connect';
export {
  type ContactLine,
  addContact,
  changeContact,
  clientOf,
  contactOfSite,
  contactsByIds,
  contactsOf,
  contactsOfSite,
  endContact,
  findContact,
  lockContact,
} from './contacts';
export { deleteClient, deleteSite } from './deleting';
export {
  AdoptDto,
  AlikeDto,
  BriefDto,
  BringBackDto,
  ClientDto,
  ClientsDto,
  ContactDto,
  CsvDto,
  EnvironmentDto,
  FindSitesDto,
  MergeDto,
  NewSiteDto,
  ReadSiteDto,
  RosterDto,
  SiteChangeDto,
} from './dto';
export {
  addEnvironment,
  changeEnvironment,
  deleteEnvironment,
  reasonsToKeepEnvironment,
  whyBusy,
} from './environments';
export {
  SITE_GONE,
  allEnvironments,
  allSites,
  assertClient,
  assertSite,
  auditedEnvironments,
  auditedLive,
  clientsByIds,
  environmentIn,
  environmentsByIds,
  environmentsOf,
  findBrief,
  findEnvironment,
  findSite,
  findSiteLocked,
  getClient,
  getEnvironment,
  getSite,
  hasSites,
  lastAuditedBefore,
  liveEnvironmentOf,
  lockSite,
  lockSites,
  setLastAudit,
  sitesByIds,
  sitesHostedBy,
} from './find';
export type { Contact, Environment, Site } from './models';
export { readFromSite } from './read-site';
export { addKnownSite, addSite, reasonsNotToLaunch, saveSite } from './sites';
export { importCsv, previewCsv, sitesCsv } from './sites-import';
