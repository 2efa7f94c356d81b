/** An environment's audits and verdicts over time, and what made a score change. */
import { Op, type WhereOptions } from 'sequelize';
import type { Result } from '#core/score/score';
import { quantity } from '#core/text/quantity';
import { checklistVersionsById } from '#server/checklists';
import { Audit, VerdictRow, type VerdictCause } from './models';
import { scopeText, type Scope } from './scope';

/** What changed where neither site, brief nor rules did. */
const BESIDE: Partial<Record<VerdictCause, string>> = {
  attestation: 'attested',
  acceptance: 'a fault left on purpose',
  time: 'something ended',
  'approved state': 'staging to compare with',
  'intended texts': 'titles or descriptions written',
  build: 'another build to compare with',
  approval: 'a client’s yes, or one taken back',
  update: 'Armband was updated',
};

/** A band as it was kept before points were counted: what failed stood as weight. */
interface OlderSegment {
  failed?: number;
}
interface Stored {
  band?: (Result['band'][number] & OlderSegment)[];
  gateNote?: string;
  provisional?: boolean;
}

/**
 * Why a verdict may differ from the one before: the site, the brief, the rules, the host profile, or what
 * people vouched for.
 * @param looked what its audit looked at again, where that was not everything
 */
function reasonsFor(now: VerdictRow, before: VerdictRow | undefined, looked: Scope | null): string[] {
  if (!before) return [];
  const out: string[] = [];
  if (now.auditId !== before.auditId && !looked) out.push('looked at the site anew');
  if (now.situation !== before.situation) out.push('another situation');
  if (now.briefVersion !== before.briefVersion)
    out.push(`brief ${before.briefVersion ?? '–'} → ${now.briefVersion ?? '–'}`);
  if (now.checklistVersionId !== before.checklistVersionId) out.push('another checklist');
  if (now.profileVersion !== before.profileVersion)
    out.push(`host profile ${before.profileVersion ?? '–'} → ${now.profileVersion ?? '–'}`);
  if (now.catalogue !== before.catalogue) out.push('the rule changed');
  const beside = BESIDE[now.cause];
  if (beside) out.push(beside);
  return out;
}

/** Of an audit that looked at some of it, or was cut off and began again. */
function howText({ cause }: VerdictRow, audit: Audit | undefined): string[] {
  if (!audit || cause !== 'audit') return [];
  const { restarts, scope } = audit;
  return [
    ...(scope ? [`looked again at ${scopeText(scope)} only`] : []),
    ...(restarts ? [`cut off ${quantity(restarts, 'time')}, started again by itself`] : []),
  ];
}

const PER_WINDOW = 40;

/** By which a window goes on: the last verdict and the last broken-off audit that were shown. */
const CURSOR = /^(\d{1,10})-(\d{1,10})$/;
const NEWEST = 4_294_967_295;

function cursorOf(after: string | undefined): [verdict: number, audit: number] {
  const [, verdict, audit] = CURSOR.exec(after ?? '') ?? [];
  return verdict ? [Number(verdict), Number(audit)] : [NEWEST, NEWEST];
}

/** One window of the verdicts and broken-off audits of an environment, newest first. */
export async function historyOf(environmentId: number, after?: string) {
  const [belowVerdict, belowAudit] = cursorOf(after);
  const [verdicts, broken] = await Promise.all([
    VerdictRow.findAll({
      where: { environmentId, id: { [Op.lt]: belowVerdict } },
      order: [['id', 'DESC']],
      // one more, to say what the last of them differs from
      limit: PER_WINDOW + 1,
    }),
    Audit.findAll({
      where: {
        environmentId,
        id: { [Op.lt]: belowAudit },
        status: ['stopped', 'failed', 'queued', 'running'],
      },
      attributes: { exclude: ['result'] },
      order: [['id', 'DESC']],
      limit: PER_WINDOW + 1,
    }),
  ]);
  const versions = new Map(
    (
      await checklistVersionsById([
        ...new Set(verdicts.map((v) => v.checklistVersionId).filter((x): x is number => x !== null)),
      ])
    ).map((v) => [v.id, v]),
  );
  const notPlain = await Audit.findAll({
    where: {
      id: [...new Set(verdicts.map((v) => v.auditId))],
      [Op.or]: [{ restarts: { [Op.gt]: 0 } }, { scope: { [Op.ne]: null } }],
    } as WhereOptions<Audit>,
    attributes: ['id', 'restarts', 'scope'],
  });
  const special = new Map(notPlain.map((a) => [a.id, a]));
  const done = verdicts.slice(0, PER_WINDOW).map((v, i) => {
    const r = v.result as Stored;
    const list = v.checklistVersionId ? versions.get(v.checklistVersionId) : undefined;
    return {
      id: v.id,
      auditId: v.auditId,
      status: 'done',
      cause: v.cause,
      situation: v.situation,
      at: v.at.toISOString(),
      by: v.byName,
      score: v.score,
      coverage: v.coverage,
      gate: v.gate,
      gateNote: r.gateNote ?? null,
      provisional: r.provisional ?? false,
      band: r.band?.map(({ failed = 0, lost = failed, ...segment }) => ({ ...segment, lost })) ?? null,
      error: null,
      judgedBy: {
        brief: v.briefVersion,
        checklist: list ? `${(list.data as { name: string }).name} ${list.version}` : null,
        profile: v.profileVersion,
        catalogue: v.catalogue,
        evidence: v.evidenceVersion,
      },
      reasons: [
        ...reasonsFor(v, verdicts[i + 1], special.get(v.auditId)?.scope ?? null),
        ...howText(v, special.get(v.auditId)),
      ],
      scoreBefore: verdicts[i + 1]?.score ?? null,
    };
  });
  const ended = broken.map((a) => ({
    id: -a.id,
    auditId: a.id,
    status: a.status,
    cause: 'audit',
    situation: a.situation,
    at: (a.finishedAt ?? a.startedAt).toISOString(),
    by: a.startedBy,
    score: null,
    coverage: null,
    gate: null,
    gateNote: null,
    provisional: false,
    band: null,
    error: a.error,
    judgedBy: null,
    reasons: [],
    scoreBefore: null,
  }));
  const all = [...done, ...ended].sort((a, b) => b.at.localeCompare(a.at));
  const rows = all.slice(0, PER_WINDOW);
  // those of an audit stand below nothing
  const last = (shown: number[], before: number): number => Math.min(before, ...shown);
  const hasMore = rows.length < all.length || verdicts.length > PER_WINDOW;
  const next = [
    last(
      rows.flatMap((r) => (r.id > 0 ? r.id : [])),
      belowVerdict,
    ),
    last(
      rows.flatMap((r) => (r.id < 0 ? -r.id : [])),
      belowAudit,
    ),
  ].join('-');
  return { rows, next: hasMore ? next : null };
}
