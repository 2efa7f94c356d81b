/** A contact’s yes: to exactly one audit, with what proves and what compares it. */
import { createHash } from 'node:crypto';
import { Op } from 'sequelize';
import { contentOf, fingerprintOf } from '#core/approval/content';
import { SiteView } from '#core/checks/view/site-view';
import {
  evidenceOfAudits,
  findEvidence,
  findAudit,
  reevaluateSite,
  type AuditEvidence,
} from '#server/audits';
import { newestProfile } from '#server/hosts';
import { now } from '#server/platform/clock';
import { inTransaction } from '#server/platform/db/transaction';
import { emit } from '#server/platform/domain-events';
import { Conflict, NotFound, TooMany } from '#server/platform/errors';
import { readEvidence, decompress } from '#server/platform/packed';
import { lockContact, type Contact, environmentsOf, getSite, newestBrief, type Site } from '#server/sites';
import { ApprovalRow } from './models';
import { notifyOwners } from './notify-owners';

const digest = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex');

/** SHA-256 of an audit’s evidence as it is kept: the JSON text, whatever it is packed with. */
async function evidenceDigest({ data }: AuditEvidence): Promise<string> {
  return digest(await decompress(data));
}

/** @throws NotFound where the audit has no evidence, Conflict where there is no content to say yes to */
async function proofOf(
  auditId: number,
  site: Site,
): Promise<Pick<ApprovalRow, 'evidenceSha256' | 'fingerprint'>> {
  const stored = await findEvidence(auditId);
  if (!stored) throw new NotFound('This audit has no evidence, or not any more.');
  const [evidence, brief, profile] = await Promise.all([
    readEvidence(stored.data),
    newestBrief(site.id),
    newestProfile(site.hostProfileId ?? null),
  ]);
  const situation = evidence.target.kind === 'live' ? 'live' : 'staging';
  const view = new SiteView(evidence, brief?.brief ?? {}, profile?.profile ?? { name: '' }, situation);
  const content = contentOf(view);
  if (!content.pages.size)
    throw new Conflict(
      'No page of the site could be read when it was looked at: there is nothing to say yes to.',
    );
  return { evidenceSha256: await evidenceDigest(stored), fingerprint: fingerprintOf(content) };
}

/** Yes and no again, by one contact on one site within a day. */
const MOST_A_DAY = 20;
const DAY_MS = 86_400_000;

/** @throws NotFound, Conflict, TooMany */
export async function approve(
  contact: Contact,
  { siteId, auditId, editionId, note }: { siteId: number; auditId: number; editionId: number; note?: string },
): Promise<void> {
  const [site, audit] = await Promise.all([getSite(siteId), findAudit(auditId)]);
  if (!audit) throw new NotFound('What you were shown is not there any more.');
  const proof = await proofOf(auditId, site);
  const at = now();
  await inTransaction(async (transaction) => {
    // one after the other: what is sent several times at once stands once
    await lockContact(contact.id, transaction);
    const standingKey = `${contact.id} ${auditId}`;
    if (await ApprovalRow.count({ where: { standingKey }, transaction }))
      throw new Conflict('You have said yes to this already.');
    const since = { [Op.gt]: new Date(at.getTime() - DAY_MS) };
    if (
      (await ApprovalRow.count({ where: { siteId, contactId: contact.id, at: since }, transaction })) >=
      MOST_A_DAY
    )
      throw new TooMany('You have changed your mind often today. Write to us, please.');
    await ApprovalRow.create(
      {
        siteId,
        environmentId: audit.environmentId,
        auditId,
        editionId,
        contactId: contact.id,
        byName: contact.name,
        at,
        note: note?.trim() || null,
        standingKey,
        ...proof,
      },
      { transaction },
    );
  });
  await emit('SiteTouched', { siteId });
  await notifyOwners(site, `${contact.name} said yes to ${site.name}.`, audit.environmentId);
  await reevaluateSite(siteId, { cause: 'approval', by: contact.name });
}

/**
 * Takes a yes back, with all others of the same contact on this site that stand: an older one is not to stand in for
 * it.
 * @param whose only a yes of this contact
 * @throws NotFound, Conflict
 */
export async function withdrawApproval(
  id: number,
  { by, reason, whose }: { by: string; reason: string; whose?: { contactId: number; siteId: number } },
): Promise<void> {
  const row = await inTransaction(async (transaction) => {
    const held = await ApprovalRow.findOne({ where: { id, ...whose }, transaction, lock: true });
    if (!held) throw new NotFound('This yes is not there.');
    if (held.withdrawnAt) throw new Conflict('This yes was taken back already.');
    const { siteId, contactId } = held;
    await ApprovalRow.update(
      { withdrawnAt: now(), withdrawnBy: by, withdrawnReason: reason.trim(), standingKey: null },
      {
        where: contactId === null ? { id } : { siteId, contactId, withdrawnAt: null },
        transaction,
      },
    );
    await emit('SiteTouched', { siteId }, transaction);
    return held;
  });
  const site = await getSite(row.siteId);
  if (whose)
    await notifyOwners(site, `${by} took the yes to ${site.name} back: ${reason.trim()}`, row.environmentId);
  await reevaluateSite(row.siteId, { cause: 'approval', by });
}

export interface ApprovalLine {
  id: number;
  by: string;
  contactId: number | null;
  at: string;
  note: string | null;
  auditId: number;
  environmentId: number;
  environment: string;
  evidenceSha256: string;
  /** Whether the evidence is still, byte for byte, what the yes was said to. */
  isUntouched: boolean;
  fingerprint: string;
  withdrawn: { at: string; by: string; reason: string } | null;
}

/** All yeses of a site, the newest first. */
export async function approvalsOf(siteId: number): Promise<ApprovalLine[]> {
  const rows = await ApprovalRow.findAll({ where: { siteId }, order: [['id', 'DESC']], limit: 50 });
  const stored = await evidenceOfAudits(rows.map((r) => r.auditId));
  const digests = new Map<number, string>();
  for (const evidence of stored) digests.set(evidence.auditId, await evidenceDigest(evidence));
  const environments = await environmentsOf(siteId);
  const names = new Map(environments.map((e) => [e.id, e.name]));
  return rows.map((r) => ({
    id: r.id,
    by: r.byName,
    contactId: r.contactId,
    at: r.at.toISOString(),
    note: r.note,
    auditId: r.auditId,
    environmentId: r.environmentId,
    environment: names.get(r.environmentId) ?? '',
    evidenceSha256: r.evidenceSha256,
    isUntouched: digests.get(r.auditId) === r.evidenceSha256,
    fingerprint: r.fingerprint,
    withdrawn: r.withdrawnAt
      ? { at: r.withdrawnAt.toISOString(), by: r.withdrawnBy ?? '', reason: r.withdrawnReason ?? '' }
      : null,
  }));
}
