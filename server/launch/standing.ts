/** Whether a site can be launched, as far as it is known: what stands against it, and whether the client said yes. */
import { Op } from 'sequelize';
import { clientApproval } from '#core/checks/catalogue/delivery/client-approval';
import type { Outcome } from '#core/facts/finding';
import type { Gate } from '#core/score/score';
import { Audit, FindingRow } from '../audits/models';
import { NotFound } from '../platform/errors';
import { approvalsOf } from '../reports/approvals';
import { Environment, Site } from '../sites/models';
import { headingOf } from '#core/facts/heading';

/** A blocker that is open, or that nobody can tell yet. */
export interface Against {
  check: string;
  title: string;
  outcome: Outcome;
  found: string | null;
}

export interface LaunchEnvironment {
  id: number;
  name: string;
  isLive: boolean;
  /** When it was looked at last; nothing where it never was. */
  at: string | null;
  gate: Gate | null;
  against: Against[];
}

export interface LaunchStanding {
  environments: LaunchEnvironment[];
  /** The newest yes that stands, and what the newest audit says of it. */
  yes: { by: string; at: string; environment: string; outcome: Outcome | null } | null;
}

const OPEN: Outcome[] = ['failed', 'cantTell', 'untested'];

/** What counts for a launch: the last environment before the live one, and the live one. */
export async function countingOf(siteId: number): Promise<Environment[]> {
  const all = await Environment.findAll({ where: { siteId }, order: [['position', 'ASC']] });
  return [all.filter((e) => e.kind === 'before').at(-1), all.find((e) => e.kind === 'live')].filter(
    (e) => e !== undefined,
  );
}

async function standingOf(environment: Environment): Promise<LaunchEnvironment> {
  const { id, name, kind, lastAuditId } = environment;
  const audit = lastAuditId ? await Audit.findByPk(lastAuditId) : null;
  const rows = await FindingRow.findAll({
    where: { environmentId: id, severity: 'blocker', accepted: false, outcome: { [Op.in]: OPEN } },
    order: [['position', 'ASC']],
  });
  rows.sort((a, b) => OPEN.indexOf(a.outcome) - OPEN.indexOf(b.outcome));
  return {
    id,
    name,
    isLive: kind === 'live',
    at: audit ? (audit.finishedAt ?? audit.startedAt).toISOString() : null,
    gate: audit?.gate ?? null,
    against: rows.map(({ checkId, title, fault, outcome, found }) => ({
      check: checkId,
      title: headingOf({ title, fault, outcome }),
      outcome,
      found: found ?? null,
    })),
  };
}

/** @throws NotFound */
export async function launchStanding(siteId: number): Promise<LaunchStanding> {
  if (!(await Site.count({ where: { id: siteId } })))
    throw new NotFound('This site does not exist, or not any more.');
  const environments = await countingOf(siteId);
  const yes = (await approvalsOf(siteId)).find((a) => !a.withdrawn);
  const before = environments.find((e) => e.kind === 'before') ?? environments[0];
  const judged =
    before && (await FindingRow.findOne({ where: { environmentId: before.id, checkId: clientApproval.id } }));
  return {
    environments: await Promise.all(environments.map(standingOf)),
    yes: yes
      ? { by: yes.by, at: yes.at, environment: yes.environment, outcome: judged?.outcome ?? null }
      : null,
  };
}
