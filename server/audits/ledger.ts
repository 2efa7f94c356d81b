/**
 * The ledger of one environment: its latest findings, the sum behind the score, what would help most, and the fixes
 * and attestations beside them.
 */
import type { Check } from '#core/checks/kit/check';
import { checksOf } from '#core/checks/engine/checklist';
import type { JudgedFinding } from '#core/checks/engine/judge';
import { pointsLost, termsOf, type Result } from '#core/score/score';
import { Audit, FindingRow } from './models';
import { AcceptanceRow, Fix } from '../fixes/models';
import { AttachmentRow, AttestationRow } from '../checklists/models';
import { Environment } from '../sites/models';
import { User } from '../people/models';
import { checklistVersion } from '../checklists/checklists';
import { NotFound } from '../platform/errors';

/** Places beyond this are counted, not sent: a screen cannot show them. */
const PLACES = 300;
const ATTESTATIONS = 20;

/** Who vouched for what, by check, newest first. */
async function attestationsOf(environmentId: number) {
  const rows = await AttestationRow.findAll({
    where: { environmentId },
    order: [['id', 'DESC']],
    limit: 1000,
  });
  const files = new Map(
    (
      await AttachmentRow.findAll({ where: { environmentId }, attributes: ['id', 'name', 'type', 'bytes'] })
    ).map((f) => [f.id, { id: f.id, name: f.name, type: f.type, bytes: f.bytes }]),
  );
  const out = new Map<
    string,
    {
      by: string;
      at: string;
      done: boolean;
      doesNotApply: boolean;
      note: string | null;
      place: string | null;
      goodUntil: string | null;
      goodWhile: string | null;
      file: { id: number; name: string; type: string; bytes: number } | null;
    }[]
  >();
  for (const r of rows) {
    const list = out.get(r.checkId) ?? [];
    if (list.length < ATTESTATIONS)
      list.push({
        by: r.byName,
        at: r.at.toISOString(),
        done: r.done,
        doesNotApply: Boolean(r.doesNotApply),
        note: r.note,
        place: r.place,
        goodUntil: r.goodUntil,
        goodWhile: r.goodWhile,
        file: r.attachmentId ? (files.get(r.attachmentId) ?? null) : null,
      });
    out.set(r.checkId, list);
  }
  return out;
}

/** What the ledger says of a check itself. */
const aboutCheck = (check: Check | undefined) => ({
  why: check?.why ?? '',
  source: check?.source ?? '',
  scope: check?.scope ?? '',
  attestedForDays: check?.attestedForDays ?? null,
});

type Names = ReadonlyMap<number, string>;

function fixLine(fix: Fix | undefined, names: Names) {
  if (!fix) return null;
  const { id, state, dueDate = null, returns, ownerId } = fix;
  return { id, state, owner: ownerId ? (names.get(ownerId) ?? null) : null, dueDate, returns };
}

function acceptanceLine(row: AcceptanceRow | undefined, names: Names) {
  if (!row) return null;
  const { id, reason, until, byId, secondedById } = row;
  return {
    id,
    reason,
    until,
    by: names.get(byId) ?? '',
    byId,
    seconded: secondedById ? (names.get(secondedById) ?? '') : null,
  };
}

/** Said where an audit looked at an address that was changed since. */
function ofOldAddress({ url }: Audit, environment: Environment): string[] {
  if (!url || url === environment.url) return [];
  return [
    `All of this was found at ${url}, the address before it was changed. Audit now to look at ${environment.url}.`,
  ];
}

export async function ledger(environmentId: number) {
  const environment = await Environment.findByPk(environmentId);
  if (!environment) throw new NotFound('This environment does not exist, or not any more.');
  const audit = environment.lastAuditId ? await Audit.findByPk(environment.lastAuditId) : null;
  if (!audit) return { audit: null, findings: [], sum: null, notes: [] };
  const [rows, fixes, acceptances, people, attestations, checklist] = await Promise.all([
    FindingRow.findAll({ where: { environmentId }, order: [['position', 'ASC']] }),
    Fix.findAll({ where: { environmentId } }),
    AcceptanceRow.findAll({ where: { environmentId, withdrawnAt: null } }),
    User.findAll(),
    attestationsOf(environmentId),
    checklistVersion(audit.checklistVersionId),
  ]);
  const names = new Map(people.map((p) => [p.id, p.name]));
  const fixOf = new Map(fixes.map((f) => [f.checkId, f]));
  const checkOf: (id: string) => Check | undefined = checksOf(checklist);
  const all = rows.map((r) => r.data as JudgedFinding);
  const { notes = [] } = audit.result as Result & { notes?: string[] };
  return {
    audit: {
      id: audit.id,
      at: audit.finishedAt?.toISOString() ?? null,
      by: audit.startedBy,
      situation: audit.situation,
      result: audit.result as Result,
      checklist: `${checklist.name}, version ${checklist.version}`,
    },
    findings: all.map((f) => ({
      ...f,
      places: f.places.slice(0, PLACES),
      placeCount: f.places.length,
      failing: f.places.filter((p) => p.outcome === 'failed').length,
      points: pointsLost(f),
      ...aboutCheck(checkOf(f.check)),
      attestations: attestations.get(f.check) ?? [],
      fix: fixLine(fixOf.get(f.check), names),
      acceptance: acceptanceLine(acceptances.filter((a) => a.checkId === f.check).at(-1), names),
    })),
    sum: termsOf(all),
    notes: [...ofOldAddress(audit, environment), ...notes],
  };
}
