/** The checklists that come with the catalogue. */
import type { Checklist } from '#core/facts/checklist';
import { fullChecklist } from './engine';

/** The last hour before and the first after a launch: what holds a launch, and what is seen first. Everything else waits for the full list. */
const QUICK_LAUNCH = [
  'identity.title-names-site', 'identity.home-page', 'identity.no-default-title', 'identity.contact-email', 'identity.private-addresses', 'identity.no-placeholder-text', 'identity.required-pages',
  'https.answers', 'https.certificate-valid', 'https.certificate-names', 'https.http-redirects', 'https.no-mixed-content',
  'domain.resolves', 'domain.own', 'domain.connected', 'domain.records-match', 'domain.forwarding', 'domain.no-stray-records', 'domain.every-address', 'domain.preferred-host', 'domain.both-hosts', 'domain.mail-survives', 'domain.ds-fits', 'domain.signed', 'domain.registration-status', 'domain.mail-exchanger', 'domain.ttl-for-launch', 'domain.access',
  'indexing.kept-out', 'indexing.let-in', 'indexing.hidden-kept-out', 'indexing.robots-answers', 'indexing.robots-allows', 'indexing.sitemap-found', 'indexing.canonical-host', 'indexing.no-staging-links', 'indexing.not-found-status', 'indexing.old-addresses', 'indexing.no-holding-page', 'indexing.holding-page', 'indexing.links-answer',
  'verification.tokens-present', 'verification.tokens-own', 'verification.analytics-present', 'verification.analytics-own',
  'metadata.title-present', 'metadata.description-present', 'metadata.viewport', 'sharing.preview-complete', 'sharing.image-loads', 'sharing.favicon',
  'delivery.matches-build', 'delivery.fresh', 'delivery.no-server-errors', 'delivery.no-exposed-files', 'delivery.staging-lifetime', 'delivery.backup', 'delivery.forms-arrive', 'delivery.plan-fits', 'delivery.client-approval', 'delivery.small-screen',
];

/** What changes by itself on a site that nobody touches. */
const MONTHLY_LOOK = [
  'identity.home-page', 'identity.contact-email', 'identity.copyright-year', 'identity.profile-links', 'identity.no-placeholder-text',
  'https.answers', 'https.certificate-valid', 'https.certificate-names', 'https.certificate-days', 'https.certificate-chain', 'https.protocol', 'https.http-redirects', 'https.hsts', 'https.no-mixed-content', 'https.no-version-leak',
  'domain.resolves', 'domain.connected', 'domain.records-match', 'domain.no-stray-records', 'domain.preferred-host', 'domain.no-dangling-alias', 'domain.name-servers', 'domain.delegation-agrees', 'domain.authorities-agree', 'domain.mail-exchanger', 'domain.spf', 'domain.dkim', 'domain.dmarc', 'domain.registration-days', 'domain.registration-status', 'domain.registration-lock', 'domain.signed', 'domain.renewal-owner',
  'indexing.let-in', 'indexing.hidden-kept-out', 'indexing.shown-in-full', 'indexing.robots-answers', 'indexing.robots-allows', 'indexing.sitemap-found', 'indexing.sitemap-pages', 'indexing.canonical-host', 'indexing.not-found-status', 'indexing.no-holding-page', 'indexing.links-answer', 'indexing.outside-links', 'indexing.staging-closed',
  'verification.tokens-present', 'verification.analytics-present', 'verification.analytics-once', 'verification.analytics-own', 'verification.scripts-expected',
  'metadata.title-present', 'metadata.description-present', 'sharing.image-loads', 'sharing.favicon',
  'delivery.fresh', 'delivery.no-server-errors', 'delivery.no-exposed-files', 'delivery.response-time', 'delivery.page-weight', 'delivery.picture-weight', 'delivery.security-contact', 'delivery.backup', 'delivery.upkeep', 'delivery.forms-arrive',
];

function part(name: string, description: string, ids: readonly string[]): Checklist {
  const wanted = new Set(ids);
  return { name, version: 1, description, items: fullChecklist().items.map(i => ({ ...i, on: wanted.has(i.check) })) };
}

/** Full, quick launch, monthly look. Each mentions every check of the catalogue, those it leaves out as off. */
export function builtInChecklists(): Checklist[] {
  return [
    { ...fullChecklist(), description: 'Every check of the catalogue.' },
    part('Quick launch', 'What holds a launch and what is seen first; for the last hour before it and the first after.', QUICK_LAUNCH),
    part('Monthly look', 'What changes by itself on a site that nobody touches.', MONTHLY_LOOK),
  ];
}
