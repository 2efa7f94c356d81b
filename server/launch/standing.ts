/** Whether a site can be launched, as far as it is known: what stands against it, and whether the client said yes. */
import { clientApproval } from '#core/checks/catalogue/delivery/client-approval';
import type { Outcome } from '#core/facts/finding';
import { headingOf } from '#core/facts/heading';
import type { Gate } from '#core/score/score';
import { findFinding, openBlockers, findAudit } from '#server/audits';
import { approvalsOf } from '#server/reports';
import { environmentsOf, assertSite, type Environment } from '#server/sites';

/** A blocker that is open, or that nobody can tell yet. */
interface LaunchBlocker {
  check: string;
  title: string;
  outcome: Outcome;
  found: string | null;
}

interface LaunchEnvironment {
  id: number;
  name: string;
  isLive: boolean;
  /** When it was looked at last; nothing where it never was. */
  at: string | null;
  gate: Gate | null;
  against: LaunchBlocker[];
}

export interface LaunchStanding {
  environments: LaunchEnvironment[];
  /** The newest yes that stands, and what the newest audit says of it. */
  yes: { by: string; at: string; environment: string; outcome: Outcome | null } | null;
}

const OPEN: Outcome[] = ['failed', 'cantTell', 'untested'];

/** What counts for a launch: the last environment before the live one, and the live one. */
export async function countingOf(siteId: number): Promise<Environment[]> {
  const all = await environmentsOf(siteId);
  return [all.filter((e) => e.kind === 'before').at(-1), all.find((e) => e.kind === 'live')].filter(
    (e) => e !== undefined,
  );
}

async function standingOf(environment: Environment): Promise<LaunchEnvironment> {
  const { id, name, kind, lastAuditId } = environment;
  const audit = lastAuditId ? await findAudit(lastAuditId) : null;
  const rows = await openBlockers(id, OPEN);
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
  await assertSite(siteId);
  const environments = await countingOf(siteId);
  const yes = (await approvalsOf(siteId)).find((a) => !a.withdrawn);
  const before = environments.find((e) => e.kind === 'before') ?? environments[0];
  const judged = before && (await findFinding(before.id, clientApproval.id));
  return {
    environments: await Promise.all(environments.map(standingOf)),
    yes: yes
      ? { by: yes.by, at: yes.at, environment: yes.environment, outcome: judged?.outcome ?? null }
      : null,
  };
}
