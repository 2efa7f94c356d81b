/** The catalogue: every check, one line each. Adding a check is adding one file and one line here. */
import type { Check } from '#core/checks/kit/check';
import { titleNamesSite } from '#core/checks/catalogue/identity/title-names-site';
import { homePage } from '#core/checks/catalogue/identity/home-page';
import { noDefaultTitle } from '#core/checks/catalogue/identity/no-default-title';
import { noDefaultTagline } from '#core/checks/catalogue/identity/no-default-tagline';
import { siteName } from '#core/checks/catalogue/identity/site-name';
import { language } from '#core/checks/catalogue/identity/language';
import { contactEmail } from '#core/checks/catalogue/identity/contact-email';
import { privateAddresses } from '#core/checks/catalogue/identity/private-addresses';
import { emailDomain } from '#core/checks/catalogue/identity/email-domain';
import { phone } from '#core/checks/catalogue/identity/phone';
import { profileLinks } from '#core/checks/catalogue/identity/profile-links';
import { organisationData } from '#core/checks/catalogue/identity/organisation-data';
import { defaultAuthor } from '#core/checks/catalogue/identity/default-author';
import { requiredPages } from '#core/checks/catalogue/identity/required-pages';
import { noPlaceholderText } from '#core/checks/catalogue/identity/no-placeholder-text';
import { noHostBadge } from '#core/checks/catalogue/identity/no-host-badge';
import { themeColour } from '#core/checks/catalogue/identity/theme-colour';
import { copyrightYear } from '#core/checks/catalogue/identity/copyright-year';
import { wordingApproved } from '#core/checks/catalogue/identity/wording-approved';
import { timeZone } from '#core/checks/catalogue/identity/time-zone';
import { answers } from '#core/checks/catalogue/https/answers';
import { certificateValid } from '#core/checks/catalogue/https/certificate-valid';
import { certificateNames } from '#core/checks/catalogue/https/certificate-names';
import { certificateDays } from '#core/checks/catalogue/https/certificate-days';
import { certificateChain } from '#core/checks/catalogue/https/certificate-chain';
import { certificateKey } from '#core/checks/catalogue/https/certificate-key';
import { protocol } from '#core/checks/catalogue/https/protocol';
import { httpRedirects } from '#core/checks/catalogue/https/http-redirects';
import { permanentRedirects } from '#core/checks/catalogue/https/permanent-redirects';
import { fewHops } from '#core/checks/catalogue/https/few-hops';
import { hsts } from '#core/checks/catalogue/https/hsts';
import { hstsSafe } from '#core/checks/catalogue/https/hsts-safe';
import { noMixedContent } from '#core/checks/catalogue/https/no-mixed-content';
import { noInsecureLinks } from '#core/checks/catalogue/https/no-insecure-links';
import { secureForms } from '#core/checks/catalogue/https/secure-forms';
import { secureCookies } from '#core/checks/catalogue/https/secure-cookies';
import { protectiveHeaders } from '#core/checks/catalogue/https/protective-headers';
import { noVersionLeak } from '#core/checks/catalogue/https/no-version-leak';
import { resolves } from '#core/checks/catalogue/domain/resolves';
import { own } from '#core/checks/catalogue/domain/own';
import { connected } from '#core/checks/catalogue/domain/connected';
import { recordsMatch } from '#core/checks/catalogue/domain/records-match';
import { forwarding } from '#core/checks/catalogue/domain/forwarding';
import { noStrayRecords } from '#core/checks/catalogue/domain/no-stray-records';
import { everyAddress } from '#core/checks/catalogue/domain/every-address';
import { preferredHost } from '#core/checks/catalogue/domain/preferred-host';
import { pathKept } from '#core/checks/catalogue/domain/path-kept';
import { bothHosts } from '#core/checks/catalogue/domain/both-hosts';
import { noApexAlias } from '#core/checks/catalogue/domain/no-apex-alias';
import { noDanglingAlias } from '#core/checks/catalogue/domain/no-dangling-alias';
import { nameServers } from '#core/checks/catalogue/domain/name-servers';
import { delegationAgrees } from '#core/checks/catalogue/domain/delegation-agrees';
import { authoritiesAgree } from '#core/checks/catalogue/domain/authorities-agree';
import { ttlForLaunch } from '#core/checks/catalogue/domain/ttl-for-launch';
import { mailSurvives } from '#core/checks/catalogue/domain/mail-survives';
import { dsFits } from '#core/checks/catalogue/domain/ds-fits';
import { soa } from '#core/checks/catalogue/domain/soa';
import { mailExchanger } from '#core/checks/catalogue/domain/mail-exchanger';
import { mailTargets } from '#core/checks/catalogue/domain/mail-targets';
import { spf } from '#core/checks/catalogue/domain/spf';
import { dkim } from '#core/checks/catalogue/domain/dkim';
import { dmarc } from '#core/checks/catalogue/domain/dmarc';
import { noMailClosed } from '#core/checks/catalogue/domain/no-mail-closed';
import { caa } from '#core/checks/catalogue/domain/caa';
import { registrationDays } from '#core/checks/catalogue/domain/registration-days';
import { registrationStatus } from '#core/checks/catalogue/domain/registration-status';
import { registrationLock } from '#core/checks/catalogue/domain/registration-lock';
import { registrar } from '#core/checks/catalogue/domain/registrar';
import { signed } from '#core/checks/catalogue/domain/signed';
import { access } from '#core/checks/catalogue/domain/access';
import { renewalOwner } from '#core/checks/catalogue/domain/renewal-owner';
import { transferReady } from '#core/checks/catalogue/domain/transfer-ready';
import { mtaSts } from '#core/checks/catalogue/domain/mta-sts';
import { tlsReports } from '#core/checks/catalogue/domain/tls-reports';
import { keptOut } from '#core/checks/catalogue/indexing/kept-out';
import { letIn } from '#core/checks/catalogue/indexing/let-in';
import { unexpectedNoindex } from '#core/checks/catalogue/indexing/unexpected-noindex';
import { robotsAnswers } from '#core/checks/catalogue/indexing/robots-answers';
import { robotsAllows } from '#core/checks/catalogue/indexing/robots-allows';
import { robotsWellFormed } from '#core/checks/catalogue/indexing/robots-well-formed';
import { robotsAssets } from '#core/checks/catalogue/indexing/robots-assets';
import { robotsNoSecrets } from '#core/checks/catalogue/indexing/robots-no-secrets';
import { sitemapFound } from '#core/checks/catalogue/indexing/sitemap-found';
import { sitemapLimits } from '#core/checks/catalogue/indexing/sitemap-limits';
import { sitemapPages } from '#core/checks/catalogue/indexing/sitemap-pages';
import { sitemapComplete } from '#core/checks/catalogue/indexing/sitemap-complete';
import { canonicalPresent } from '#core/checks/catalogue/indexing/canonical-present';
import { canonicalHost } from '#core/checks/catalogue/indexing/canonical-host';
import { canonicalAgrees } from '#core/checks/catalogue/indexing/canonical-agrees';
import { canonicalOwn } from '#core/checks/catalogue/indexing/canonical-own';
import { noStagingLinks } from '#core/checks/catalogue/indexing/no-staging-links';
import { notFoundStatus } from '#core/checks/catalogue/indexing/not-found-status';
import { oldAddresses } from '#core/checks/catalogue/indexing/old-addresses';
import { readableAddresses } from '#core/checks/catalogue/indexing/readable-addresses';
import { noHoldingPage } from '#core/checks/catalogue/indexing/no-holding-page';
import { holdingPageGone } from '#core/checks/catalogue/indexing/holding-page-gone';
import { holdingPage } from '#core/checks/catalogue/indexing/holding-page';
import { stagingClosed } from '#core/checks/catalogue/indexing/staging-closed';
import { linksAnswer } from '#core/checks/catalogue/indexing/links-answer';
import { alternates } from '#core/checks/catalogue/indexing/alternates';
import { noDuplicates } from '#core/checks/catalogue/indexing/no-duplicates';
import { handedIn } from '#core/checks/catalogue/indexing/handed-in';
import { tokensPresent } from '#core/checks/catalogue/verification/tokens-present';
import { tokensOwn } from '#core/checks/catalogue/verification/tokens-own';
import { tokensKnown } from '#core/checks/catalogue/verification/tokens-known';
import { analyticsPresent } from '#core/checks/catalogue/verification/analytics-present';
import { analyticsOnce } from '#core/checks/catalogue/verification/analytics-once';
import { analyticsOwn } from '#core/checks/catalogue/verification/analytics-own';
import { analyticsOffStaging } from '#core/checks/catalogue/verification/analytics-off-staging';
import { consentFirst } from '#core/checks/catalogue/verification/consent-first';
import { scriptPlacement } from '#core/checks/catalogue/verification/script-placement';
import { scriptsExpected } from '#core/checks/catalogue/verification/scripts-expected';
import { scriptsOnce } from '#core/checks/catalogue/verification/scripts-once';
import { nothingBeforeConsent } from '#core/checks/catalogue/verification/nothing-before-consent';
import { hitsSeen } from '#core/checks/catalogue/verification/hits-seen';
import { titlePresent } from '#core/checks/catalogue/metadata/title-present';
import { titleLength } from '#core/checks/catalogue/metadata/title-length';
import { titleUnique } from '#core/checks/catalogue/metadata/title-unique';
import { descriptionPresent } from '#core/checks/catalogue/metadata/description-present';
import { descriptionLength } from '#core/checks/catalogue/metadata/description-length';
import { descriptionUnique } from '#core/checks/catalogue/metadata/description-unique';
import { descriptionNamesSite } from '#core/checks/catalogue/metadata/description-names-site';
import { keyPhrases } from '#core/checks/catalogue/metadata/key-phrases';
import { asIntended } from '#core/checks/catalogue/metadata/as-intended';
import { notInherited } from '#core/checks/catalogue/metadata/not-inherited';
import { charset } from '#core/checks/catalogue/metadata/charset';
import { viewport } from '#core/checks/catalogue/metadata/viewport';
import { oneMainHeading } from '#core/checks/catalogue/metadata/one-main-heading';
import { headingOrder } from '#core/checks/catalogue/metadata/heading-order';
import { imageText } from '#core/checks/catalogue/metadata/image-text';
import { controlNames } from '#core/checks/catalogue/metadata/control-names';
import { structuredData } from '#core/checks/catalogue/metadata/structured-data';
import { noRefresh } from '#core/checks/catalogue/metadata/no-refresh';
import { handAccessibility } from '#core/checks/catalogue/metadata/hand-accessibility';
import { previewComplete } from '#core/checks/catalogue/sharing/preview-complete';
import { imageLoads } from '#core/checks/catalogue/sharing/image-loads';
import { imageSize } from '#core/checks/catalogue/sharing/image-size';
import { imageWeight } from '#core/checks/catalogue/sharing/image-weight';
import { addressAgrees } from '#core/checks/catalogue/sharing/address-agrees';
import { textOwn } from '#core/checks/catalogue/sharing/text-own';
import { card } from '#core/checks/catalogue/sharing/card';
import { favicon } from '#core/checks/catalogue/sharing/favicon';
import { iconSharp } from '#core/checks/catalogue/sharing/icon-sharp';
import { iconSizesTrue } from '#core/checks/catalogue/sharing/icon-sizes-true';
import { touchIcon } from '#core/checks/catalogue/sharing/touch-icon';
import { iconOwn } from '#core/checks/catalogue/sharing/icon-own';
import { manifest } from '#core/checks/catalogue/sharing/manifest';
import { scriptErrors } from '#core/checks/catalogue/delivery/script-errors';
import { requestsFail } from '#core/checks/catalogue/delivery/requests-fail';
import { phoneFits } from '#core/checks/catalogue/delivery/phone-fits';
import { layoutStill } from '#core/checks/catalogue/delivery/layout-still';
import { renderedAgrees } from '#core/checks/catalogue/delivery/rendered-agrees';
import { stagingLocked } from '#core/checks/catalogue/delivery/staging-locked';
import { stagingLifetime } from '#core/checks/catalogue/delivery/staging-lifetime';
import { matchesBuild } from '#core/checks/catalogue/delivery/matches-build';
import { liveEqualsStaging } from '#core/checks/catalogue/delivery/live-equals-staging';
import { fresh } from '#core/checks/catalogue/delivery/fresh';
import { noServerErrors } from '#core/checks/catalogue/delivery/no-server-errors';
import { noExposedFiles } from '#core/checks/catalogue/delivery/no-exposed-files';
import { noDirectoryListing } from '#core/checks/catalogue/delivery/no-directory-listing';
import { responseTime } from '#core/checks/catalogue/delivery/response-time';
import { pageWeight } from '#core/checks/catalogue/delivery/page-weight';
import { compressed } from '#core/checks/catalogue/delivery/compressed';
import { cached } from '#core/checks/catalogue/delivery/cached';
import { fontsUsed } from '#core/checks/catalogue/delivery/fonts-used';
import { formSender } from '#core/checks/catalogue/delivery/form-sender';
import { comments } from '#core/checks/catalogue/delivery/comments';
import { securityContact } from '#core/checks/catalogue/delivery/security-contact';
import { accounts } from '#core/checks/catalogue/delivery/accounts';
import { smallScreen } from '#core/checks/catalogue/delivery/small-screen';
import { clientApproval } from '#core/checks/catalogue/delivery/client-approval';
import { upkeep } from '#core/checks/catalogue/delivery/upkeep';
import { backup } from '#core/checks/catalogue/delivery/backup';
import { formsArrive } from '#core/checks/catalogue/delivery/forms-arrive';
import { planFits } from '#core/checks/catalogue/delivery/plan-fits';
import { pictureWeight } from '#core/checks/catalogue/delivery/picture-weight';
import { hiddenKeptOut } from '#core/checks/catalogue/indexing/hidden-kept-out';
import { linksDirect } from '#core/checks/catalogue/indexing/links-direct';
import { outsideLinks } from '#core/checks/catalogue/indexing/outside-links';
import { shownInFull } from '#core/checks/catalogue/indexing/shown-in-full';
import { imageDescription } from '#core/checks/catalogue/sharing/image-description';

export const CATALOGUE: readonly Check[] = [
  titleNamesSite,
  homePage,
  noDefaultTitle,
  noDefaultTagline,
  siteName,
  language,
  contactEmail,
  privateAddresses,
  emailDomain,
  phone,
  profileLinks,
  organisationData,
  defaultAuthor,
  requiredPages,
  noPlaceholderText,
  noHostBadge,
  themeColour,
  copyrightYear,
  wordingApproved,
  timeZone,
  answers,
  certificateValid,
  certificateNames,
  certificateDays,
  certificateChain,
  certificateKey,
  protocol,
  httpRedirects,
  permanentRedirects,
  fewHops,
  hsts,
  hstsSafe,
  noMixedContent,
  noInsecureLinks,
  secureForms,
  secureCookies,
  protectiveHeaders,
  noVersionLeak,
  resolves,
  own,
  connected,
  recordsMatch,
  forwarding,
  noStrayRecords,
  everyAddress,
  preferredHost,
  pathKept,
  bothHosts,
  noApexAlias,
  noDanglingAlias,
  nameServers,
  delegationAgrees,
  authoritiesAgree,
  ttlForLaunch,
  mailSurvives,
  dsFits,
  soa,
  mailExchanger,
  mailTargets,
  spf,
  dkim,
  dmarc,
  noMailClosed,
  caa,
  registrationDays,
  registrationStatus,
  registrationLock,
  registrar,
  signed,
  access,
  renewalOwner,
  transferReady,
  mtaSts,
  tlsReports,
  keptOut,
  letIn,
  unexpectedNoindex,
  hiddenKeptOut,
  shownInFull,
  robotsAnswers,
  robotsAllows,
  robotsWellFormed,
  robotsAssets,
  robotsNoSecrets,
  sitemapFound,
  sitemapLimits,
  sitemapPages,
  sitemapComplete,
  canonicalPresent,
  canonicalHost,
  canonicalAgrees,
  canonicalOwn,
  noStagingLinks,
  notFoundStatus,
  oldAddresses,
  readableAddresses,
  noHoldingPage,
  holdingPageGone,
  holdingPage,
  stagingClosed,
  linksAnswer,
  linksDirect,
  outsideLinks,
  alternates,
  noDuplicates,
  handedIn,
  tokensPresent,
  tokensOwn,
  tokensKnown,
  analyticsPresent,
  analyticsOnce,
  analyticsOwn,
  analyticsOffStaging,
  consentFirst,
  scriptPlacement,
  scriptsExpected,
  scriptsOnce,
  nothingBeforeConsent,
  hitsSeen,
  titlePresent,
  titleLength,
  titleUnique,
  descriptionPresent,
  descriptionLength,
  descriptionUnique,
  descriptionNamesSite,
  keyPhrases,
  notInherited,
  asIntended,
  charset,
  viewport,
  oneMainHeading,
  headingOrder,
  imageText,
  controlNames,
  structuredData,
  noRefresh,
  handAccessibility,
  previewComplete,
  imageLoads,
  imageDescription,
  imageSize,
  imageWeight,
  addressAgrees,
  textOwn,
  card,
  favicon,
  iconSharp,
  iconSizesTrue,
  touchIcon,
  iconOwn,
  manifest,
  stagingLocked,
  stagingLifetime,
  matchesBuild,
  liveEqualsStaging,
  fresh,
  noServerErrors,
  noExposedFiles,
  noDirectoryListing,
  responseTime,
  pageWeight,
  pictureWeight,
  compressed,
  cached,
  fontsUsed,
  formSender,
  comments,
  securityContact,
  scriptErrors,
  requestsFail,
  phoneFits,
  layoutStill,
  renderedAgrees,
  backup,
  formsArrive,
  accounts,
  planFits,
  upkeep,
  smallScreen,
  clientApproval,
];

export const checkById: ReadonlyMap<string, Check> = new Map(CATALOGUE.map((c) => [c.id, c]));
