/** The catalogue: every check, one line each. Adding a check is adding one file and one line here. */
import type { Check } from './check';
import { titleNamesSite } from './identity/title-names-site';
import { homePage } from './identity/home-page';
import { noDefaultTitle } from './identity/no-default-title';
import { noDefaultTagline } from './identity/no-default-tagline';
import { siteName } from './identity/site-name';
import { language } from './identity/language';
import { contactEmail } from './identity/contact-email';
import { privateAddresses } from './identity/private-addresses';
import { emailDomain } from './identity/email-domain';
import { phone } from './identity/phone';
import { profileLinks } from './identity/profile-links';
import { organisationData } from './identity/organisation-data';
import { defaultAuthor } from './identity/default-author';
import { requiredPages } from './identity/required-pages';
import { noPlaceholderText } from './identity/no-placeholder-text';
import { noHostBadge } from './identity/no-host-badge';
import { themeColour } from './identity/theme-colour';
import { copyrightYear } from './identity/copyright-year';
import { wordingApproved } from './identity/wording-approved';
import { timeZone } from './identity/time-zone';
import { answers } from './https/answers';
import { certificateValid } from './https/certificate-valid';
import { certificateNames } from './https/certificate-names';
import { certificateDays } from './https/certificate-days';
import { certificateChain } from './https/certificate-chain';
import { certificateKey } from './https/certificate-key';
import { protocol } from './https/protocol';
import { httpRedirects } from './https/http-redirects';
import { permanentRedirects } from './https/permanent-redirects';
import { fewHops } from './https/few-hops';
import { hsts } from './https/hsts';
import { hstsSafe } from './https/hsts-safe';
import { noMixedContent } from './https/no-mixed-content';
import { noInsecureLinks } from './https/no-insecure-links';
import { secureForms } from './https/secure-forms';
import { secureCookies } from './https/secure-cookies';
import { protectiveHeaders } from './https/protective-headers';
import { noVersionLeak } from './https/no-version-leak';
import { resolves } from './domain/resolves';
import { own } from './domain/own';
import { connected } from './domain/connected';
import { recordsMatch } from './domain/records-match';
import { forwarding } from './domain/forwarding';
import { noStrayRecords } from './domain/no-stray-records';
import { everyAddress } from './domain/every-address';
import { preferredHost } from './domain/preferred-host';
import { pathKept } from './domain/path-kept';
import { bothHosts } from './domain/both-hosts';
import { noApexAlias } from './domain/no-apex-alias';
import { noDanglingAlias } from './domain/no-dangling-alias';
import { nameServers } from './domain/name-servers';
import { delegationAgrees } from './domain/delegation-agrees';
import { authoritiesAgree } from './domain/authorities-agree';
import { ttlForLaunch } from './domain/ttl-for-launch';
import { mailSurvives } from './domain/mail-survives';
import { dsFits } from './domain/ds-fits';
import { soa } from './domain/soa';
import { mailExchanger } from './domain/mail-exchanger';
import { mailTargets } from './domain/mail-targets';
import { spf } from './domain/spf';
import { dkim } from './domain/dkim';
import { dmarc } from './domain/dmarc';
import { noMailClosed } from './domain/no-mail-closed';
import { caa } from './domain/caa';
import { registrationDays } from './domain/registration-days';
import { registrationStatus } from './domain/registration-status';
import { registrationLock } from './domain/registration-lock';
import { registrar } from './domain/registrar';
import { signed } from './domain/signed';
import { access, renewalOwner, transferReady } from './domain/by-hand';
import { keptOut } from './indexing/kept-out';
import { letIn } from './indexing/let-in';
import { robotsAnswers } from './indexing/robots-answers';
import { robotsAllows } from './indexing/robots-allows';
import { robotsWellFormed } from './indexing/robots-well-formed';
import { robotsAssets } from './indexing/robots-assets';
import { robotsNoSecrets } from './indexing/robots-no-secrets';
import { sitemapFound } from './indexing/sitemap-found';
import { sitemapLimits } from './indexing/sitemap-limits';
import { sitemapPages } from './indexing/sitemap-pages';
import { sitemapComplete } from './indexing/sitemap-complete';
import { canonicalPresent } from './indexing/canonical-present';
import { canonicalHost } from './indexing/canonical-host';
import { canonicalAgrees } from './indexing/canonical-agrees';
import { canonicalOwn } from './indexing/canonical-own';
import { noStagingLinks } from './indexing/no-staging-links';
import { notFoundStatus } from './indexing/not-found-status';
import { oldAddresses } from './indexing/old-addresses';
import { readableAddresses } from './indexing/readable-addresses';
import { noHoldingPage } from './indexing/no-holding-page';
import { holdingPageGone } from './indexing/holding-page-gone';
import { holdingPage } from './indexing/holding-page';
import { stagingClosed } from './indexing/staging-closed';
import { linksAnswer } from './indexing/links-answer';
import { alternates } from './indexing/alternates';
import { noDuplicates } from './indexing/no-duplicates';
import { handedIn } from './indexing/handed-in';
import { tokensPresent } from './verification/tokens-present';
import { tokensOwn } from './verification/tokens-own';
import { tokensKnown } from './verification/tokens-known';
import { analyticsPresent } from './verification/analytics-present';
import { analyticsOnce } from './verification/analytics-once';
import { analyticsOwn } from './verification/analytics-own';
import { analyticsOffStaging } from './verification/analytics-off-staging';
import { consentFirst } from './verification/consent-first';
import { scriptPlacement } from './verification/script-placement';
import { scriptsExpected } from './verification/scripts-expected';
import { scriptsOnce } from './verification/scripts-once';
import { hitsSeen } from './verification/hits-seen';
import { titlePresent } from './metadata/title-present';
import { titleLength } from './metadata/title-length';
import { titleUnique } from './metadata/title-unique';
import { descriptionPresent } from './metadata/description-present';
import { descriptionLength } from './metadata/description-length';
import { descriptionUnique } from './metadata/description-unique';
import { descriptionNamesSite } from './metadata/description-names-site';
import { keyPhrases } from './metadata/key-phrases';
import { notInherited } from './metadata/not-inherited';
import { charset } from './metadata/charset';
import { viewport } from './metadata/viewport';
import { oneMainHeading } from './metadata/one-main-heading';
import { headingOrder } from './metadata/heading-order';
import { imageText } from './metadata/image-text';
import { controlNames } from './metadata/control-names';
import { structuredData } from './metadata/structured-data';
import { noRefresh } from './metadata/no-refresh';
import { handAccessibility } from './metadata/hand-accessibility';
import { previewComplete } from './sharing/preview-complete';
import { imageLoads } from './sharing/image-loads';
import { imageSize } from './sharing/image-size';
import { imageWeight } from './sharing/image-weight';
import { addressAgrees } from './sharing/address-agrees';
import { textOwn } from './sharing/text-own';
import { card } from './sharing/card';
import { favicon } from './sharing/favicon';
import { iconSharp } from './sharing/icon-sharp';
import { iconSizesTrue } from './sharing/icon-sizes-true';
import { touchIcon } from './sharing/touch-icon';
import { iconOwn } from './sharing/icon-own';
import { manifest } from './sharing/manifest';
import { stagingLocked } from './delivery/staging-locked';
import { stagingLifetime } from './delivery/staging-lifetime';
import { matchesBuild } from './delivery/matches-build';
import { liveEqualsStaging } from './delivery/live-equals-staging';
import { fresh } from './delivery/fresh';
import { noServerErrors } from './delivery/no-server-errors';
import { noExposedFiles } from './delivery/no-exposed-files';
import { noDirectoryListing } from './delivery/no-directory-listing';
import { responseTime } from './delivery/response-time';
import { pageWeight } from './delivery/page-weight';
import { compressed } from './delivery/compressed';
import { cached } from './delivery/cached';
import { fontsUsed } from './delivery/fonts-used';
import { formSender } from './delivery/form-sender';
import { comments } from './delivery/comments';
import { securityContact } from './delivery/security-contact';
import { backup, formsArrive, accounts, upkeep, smallScreen, clientApproval } from './delivery/by-hand';
import { planFits } from './delivery/plan-fits';
import { pictureWeight } from './delivery/picture-weight';
import { hiddenKeptOut } from './indexing/hidden-kept-out';
import { linksDirect } from './indexing/links-direct';
import { outsideLinks } from './indexing/outside-links';
import { shownInFull } from './indexing/shown-in-full';
import { imageDescription } from './sharing/image-description';

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
  keptOut,
  letIn,
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
  backup,
  formsArrive,
  accounts,
  planFits,
  upkeep,
  smallScreen,
  clientApproval,
];

export const checkById: ReadonlyMap<string, Check> = new Map(CATALOGUE.map((c) => [c.id, c]));
