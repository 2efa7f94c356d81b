/** The roster: one row a site, asked in a handful of queries whatever the number of sites. */
import { QueryTypes } from 'sequelize';
import type { Result } from '#core/score/score';
import { OPEN_STATES } from '#core/facts/fix';
import { database } from '../platform/db/connection';
import type { EnvironmentKind, Situation, Stage } from '#core/facts/situation';

export interface RosterEnvironment {
  id: number;
  name: string;
  kind: EnvironmentKind;
  url: string;
  situation: Situation | null;
  audit: null | {
    id: number;
    at: string;
    score: number | null;
    scoreBefore: number | null;
    scoreAsFound?: number | null;
    coverage: number | null;
    provisional: boolean;
    gate: Result['gate'];
    gateNote: string;
    lost: number;
    worst: Result['worst'] | null;
    unreached: string | null;
    /** Whether it looked at an address that was changed since. */
    ofOldAddress: boolean;
    band: Result['band'];
    blockers: number;
  };
  openFixes: number;
}
export interface RosterRow {
  id: number;
  name: string;
  client: string;
  stage: Stage;
  replaces: boolean;
  launchDate: string | null;
  hostProfileId: number | null;
  hostProfile: string | null;
  ownerId: number | null;
  owner: string | null;
  environments: RosterEnvironment[];
  shown: number;
}

interface EnvironmentRow {
  id: number;
  siteId: number;
  name: string;
  kind: EnvironmentKind;
  url: string;
  auditId: number | null;
  situation: Situation | null;
  finishedAt: Date | null;
  score: number | null;
  result: string | null;
  scoreBefore: number | null;
  ofOldAddress: number | null;
  openFixes: number;
}

/** The environment that stands for a site: the live one once launched, before that the last environment before it. */
function shownEnvironment(stage: Stage, environments: RosterEnvironment[]): number {
  const live = environments.find((p) => p.kind === 'live');
  const before = environments.filter((p) => p.kind === 'before').at(-1);
  return ((stage === 'launched' || !before ? live : before) ?? environments[0])!.id;
}

/** @param siteId one site only */
export async function roster(siteId?: number): Promise<RosterRow[]> {
  const db = database();
  const replacements = { siteId: siteId ?? 0, open: OPEN_STATES };
  const sites = await db.query<Omit<RosterRow, 'environments' | 'shown'> & { replaces: number | boolean }>(
    `SELECT s.id, s.name, c.name AS client, s.stage, s.replaces, s.launch_date AS launchDate, s.host_profile_id AS hostProfileId, h.name AS hostProfile, s.owner_id AS ownerId, u.name AS owner FROM site s JOIN client c ON c.id = s.client_id LEFT JOIN host_profile h ON h.id = s.host_profile_id LEFT JOIN user u ON u.id = s.owner_id ${siteId ? 'WHERE s.id = :siteId' : ''} ORDER BY s.name`,
    { type: QueryTypes.SELECT, replacements },
  );
  // a change is only shown between audits of the same situation, checklist and brief
  const environments = await db.query<EnvironmentRow>(
    `SELECT e.id, e.site_id AS siteId, e.name, e.kind, e.url, a.id AS auditId, a.situation, a.finished_at AS finishedAt, a.score, a.result, a.url <> e.url AS ofOldAddress,
      (SELECT p.score FROM audit p WHERE p.environment_id = e.id AND p.id < a.id AND p.status = 'done' AND p.situation = a.situation AND p.checklist_version_id = a.checklist_version_id AND p.brief_id <=> a.brief_id ORDER BY p.id DESC LIMIT 1) AS scoreBefore,
      (SELECT COUNT(*) FROM fix f WHERE f.environment_id = e.id AND f.state IN (:open)) AS openFixes
    FROM environment e LEFT JOIN audit a ON a.id = e.last_audit_id ${siteId ? 'WHERE e.site_id = :siteId' : ''} ORDER BY e.site_id, e.position`,
    { type: QueryTypes.SELECT, replacements },
  );
  const bySite = new Map<number, RosterEnvironment[]>();
  for (const p of environments) {
    const result = p.result ? (JSON.parse(p.result) as Result) : null;
    const audit: RosterEnvironment['audit'] =
      p.auditId && result
        ? {
            id: p.auditId,
            at: new Date(p.finishedAt!).toISOString(),
            score: result.score,
            scoreBefore: p.scoreBefore,
            ...(result.scoreAsFound !== undefined ? { scoreAsFound: result.scoreAsFound } : {}),
            coverage: result.coverage,
            provisional: result.provisional,
            gate: result.gate,
            gateNote: result.gateNote,
            lost: result.lost,
            worst: result.worst ?? null,
            unreached: result.unreached ?? null,
            ofOldAddress: Boolean(p.ofOldAddress),
            band: result.band,
            blockers: result.counts.blockers,
          }
        : null;
    const list = bySite.get(p.siteId) ?? [];
    list.push({
      id: p.id,
      name: p.name,
      kind: p.kind,
      url: p.url,
      situation: p.situation,
      audit,
      openFixes: Number(p.openFixes),
    });
    bySite.set(p.siteId, list);
  }
  return sites.map((s) => {
    const own = bySite.get(s.id) ?? [];
    return {
      ...s,
      replaces: Boolean(s.replaces),
      environments: own,
      shown: own.length ? shownEnvironment(s.stage, own) : 0,
    };
  });
}
