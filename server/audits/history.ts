/** An environment's audits and verdicts over time, and what made a score change. */
import type { Result } from '#core/score/score';
import { ChecklistVersion } from '../checklists/models';
import { Audit, VerdictRow, type VerdictCause } from './models';

/** What changed where neither site, brief nor rules did. */
const BESIDE: Partial<Record<VerdictCause, string>> = {
  attestation: 'attested',
  acceptance: 'a fault left on purpose',
  time: 'something ended',
  'approved state': 'staging to compare with',
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
 */
function reasonsFor(now: VerdictRow, before: VerdictRow | undefined): string[] {
  if (!before) return [];
  const out: string[] = [];
  if (now.auditId !== before.auditId) out.push('looked at the site anew');
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

/** Verdicts and broken-off audits of an environment, newest first. */
export async function historyOf(environmentId: number) {
  const [verdicts, broken] = await Promise.all([
    VerdictRow.findAll({ where: { environmentId }, order: [['id', 'DESC']], limit: 121 }),
    Audit.findAll({
      where: { environmentId, status: ['stopped', 'failed', 'queued', 'running'] },
      order: [['id', 'DESC']],
      limit: 40,
    }),
  ]);
  const versions = new Map(
    (
      await ChecklistVersion.findAll({
        where: {
          id: [...new Set(verdicts.map((v) => v.checklistVersionId).filter((x): x is number => x !== null))],
        },
      })
    ).map((v) => [v.id, v]),
  );
  const done = verdicts.slice(0, 120).map((v, i) => {
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
      reasons: reasonsFor(v, verdicts[i + 1]),
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
  return [...done, ...ended].sort((a, b) => b.at.localeCompare(a.at));
}
