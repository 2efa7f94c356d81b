/** What a client remarks: it becomes a fix or is answered, and they see what became of it. */
import { Op } from 'sequelize';
import type { Severity } from '#core/facts/finding';
import { remarkCheck, type FixState } from '#core/facts/fix';
import { getAudit } from '#server/audits';
import { fixesByIds, openFix, openFixOf, addEvents } from '#server/fixes';
import { now } from '#server/platform/clock';
import { inTransaction } from '#server/platform/db/transaction';
import { emit } from '#server/platform/domain-events';
import { Conflict, NotFound, Refused, TooMany } from '#server/platform/errors';
import { lockContact, type Contact, contactsByIds, getSite, lockSites } from '#server/sites';
import type { Edition } from './composing';
import type { RemarkDto, RemarkRegion } from './dto';
import { Remark, ReportEdition, type RemarkAbout } from './models';
import { notifyOwners } from './notify-owners';

const GONE = 'This remark is not there, or not any more.';
/** Remarks of one contact on one site within a day: more is a program. */
const MOST_A_DAY = 200;
const DAY_MS = 86_400_000;

/** What a remark is about has to be on the edition that the client sees. @throws Refused */
function aboutOf({ report }: Edition, input: RemarkDto) {
  const { about, check, page, screen, region } = input;
  if (about === 'whole') return { checkId: null, page: null, screen: null, region: null };
  if (about === 'finding') {
    const known = [...report.open, ...report.fresh, ...report.mended, ...report.left];
    if (!known.some((item) => item.check === check)) throw new Refused('This is not in the report.');
    return { checkId: check!, page: null, screen: null, region: null };
  }
  const shown = report.pages.find((p) => p.url === page);
  if (!shown) throw new Refused('This page is not in the report.');
  const isMarked = screen && region && shown[screen];
  return {
    checkId: null,
    page: shown.url,
    screen: screen && shown[screen] ? screen : null,
    region: isMarked ? within(region) : null,
  };
}

/** A part of a picture that does not reach beyond it. */
const within = ({ x, y, width, height }: RemarkRegion): RemarkRegion => ({
  x,
  y,
  width: Math.min(width, 1 - x),
  height: Math.min(height, 1 - y),
});

/** @throws Refused, TooMany */
export async function addRemark(contact: Contact, edition: Edition, input: RemarkDto): Promise<void> {
  const { siteId } = edition;
  const at = now();
  const text = input.text.trim();
  const about = aboutOf(edition, input);
  await inTransaction(async (transaction) => {
    // counted one after the other for each contact
    await lockContact(contact.id, transaction);
    const since = { [Op.gt]: new Date(at.getTime() - DAY_MS) };
    const recent = await Remark.count({ where: { siteId, contactId: contact.id, at: since }, transaction });
    if (recent >= MOST_A_DAY) throw new TooMany('That is more than is taken in a day. Write to us, please.');
    await Remark.create(
      { siteId, contactId: contact.id, editionId: edition.id, about: input.about, ...about, text, at },
      { transaction },
    );
  });
  await emit('SiteTouched', { siteId });
  const [site, audit] = await Promise.all([getSite(siteId), getAudit(edition.auditId)]);
  await notifyOwners(site, `${contact.name} remarked on ${site.name}: ${text}`, audit.environmentId);
}

/** What became of a remark, as the client reads it. */
type RemarkState = 'waiting' | 'answered' | 'taken' | 'in progress' | 'to verify' | 'done';

const OF_FIX: Record<FixState, RemarkState> = {
  open: 'taken',
  'in progress': 'in progress',
  'to verify': 'to verify',
  verified: 'done',
  gone: 'done',
  accepted: 'answered',
};

export interface RemarkLine {
  id: number;
  by: string;
  at: string;
  about: RemarkAbout;
  check: string | null;
  page: string | null;
  screen: 'desktop' | 'phone' | null;
  region: RemarkRegion | null;
  text: string;
  editionId: number;
  auditId: number;
  answer: string | null;
  answeredBy: string | null;
  fixId: number | null;
  state: RemarkState;
}

/** Remarks on a site, the newest first. @param contactId only those of one contact */
export async function remarksOf(siteId: number, contactId?: number): Promise<RemarkLine[]> {
  const rows = await Remark.findAll({
    where: { siteId, ...(contactId ? { contactId } : {}) },
    order: [['id', 'DESC']],
    limit: 300,
  });
  const [contacts, fixes, editions] = await Promise.all([
    contactsByIds(rows.map((r) => r.contactId)),
    fixesByIds(rows.flatMap((r) => r.fixId ?? [])),
    ReportEdition.findAll({ where: { siteId }, attributes: ['id', 'auditId'] }),
  ]);
  const names = new Map(contacts.map((c) => [c.id, c.name]));
  const states = new Map(fixes.map((f) => [f.id, f.state]));
  const audits = new Map(editions.map((e) => [e.id, e.auditId]));
  return rows.map((r) => {
    const fixState = r.fixId ? states.get(r.fixId) : undefined;
    return {
      id: r.id,
      by: names.get(r.contactId) ?? '',
      at: r.at.toISOString(),
      about: r.about,
      check: r.checkId,
      page: r.page,
      screen: r.screen,
      region: r.region,
      text: r.text,
      editionId: r.editionId,
      auditId: audits.get(r.editionId) ?? 0,
      answer: r.answer ?? null,
      answeredBy: r.answeredBy ?? null,
      fixId: r.fixId ?? null,
      state: fixState ? OF_FIX[fixState] : r.answer ? 'answered' : 'waiting',
    };
  });
}

/** @throws NotFound */
export async function answerRemark(id: number, text: string, by: string): Promise<void> {
  const row = await Remark.findByPk(id);
  if (!row) throw new NotFound(GONE);
  await row.update({ answer: text.trim(), answeredBy: by, answeredAt: now() });
  await emit('SiteTouched', { siteId: row.siteId });
}

const LONGEST_TITLE = 160;
const titleFor = (text: string): string => {
  const [line = ''] = text.split('\n');
  return line.length > LONGEST_TITLE ? `${line.slice(0, LONGEST_TITLE)} …` : line;
};

/**
 * A remark becomes a fix: that of the fault it is about, where one is open, else one of its own.
 * @throws NotFound, Conflict
 */
export async function remarkToFix(id: number, severity: Severity, by: string): Promise<{ fixId: number }> {
  return inTransaction(async (transaction) => {
    const row = await Remark.findByPk(id, { transaction, lock: true });
    if (!row) throw new NotFound(GONE);
    if (row.fixId) throw new Conflict('This remark has become a fix already.');
    await lockSites([row.siteId], transaction);
    const edition = await ReportEdition.findByPk(row.editionId, { transaction, rejectOnEmpty: true });
    const audit = await getAudit(edition.auditId, transaction);
    const contact = await lockContact(row.contactId, transaction);
    const { environmentId } = audit;
    const at = now();
    const known = row.checkId ? await openFixOf(environmentId, row.checkId, transaction) : null;
    const fix =
      known ??
      (await openFix(
        {
          environmentId,
          siteId: row.siteId,
          checkId: remarkCheck(row.id),
          title: titleFor(row.text),
          severity,
          state: 'open',
          places: row.page ? [{ place: row.page }] : [],
          returns: 0,
          openedAt: at,
          changedAt: at,
        },
        transaction,
      ));
    await addEvents(
      fix.id,
      [
        ...(known ? [] : [{ kind: 'opened' as const, by, at: at.toISOString(), to: 'open' as const }]),
        { kind: 'comment', by: contact.name, at: at.toISOString(), text: row.text },
      ],
      transaction,
    );
    await row.update({ fixId: fix.id }, { transaction });
    await emit('SitesChanged', { siteIds: [row.siteId] }, transaction);
    return { fixId: fix.id };
  });
}
