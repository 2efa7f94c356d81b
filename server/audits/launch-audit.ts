/** The audit of the live address that belongs to a launch: begun by the server, whatever becomes of the browser. */
import type { Transaction } from 'sequelize';
import { Conflict } from '#server/platform/errors';
import { IsInt, Min } from '#server/platform/http/validation';
import { defineJob, PRIORITY } from '#server/platform/jobs/definition';
import { enqueue } from '#server/platform/jobs/queue';
import { liveEnvironmentOf } from '#server/sites';
import { startAudits } from './audits';

class LaunchAuditPayload {
  @IsInt() @Min(1) siteId!: number;
}

const launchAuditJob = defineJob({
  name: 'launch-audit',
  lane: 'waited',
  payload: LaunchAuditPayload,
  // an audit that began before the launch may be under way still
  attempts: 12,
  async run({ siteId }, work) {
    const live = await liveEnvironmentOf(siteId);
    if (!live) return undefined;
    const { refused } = await startAudits([live.id], work.by, { priority: PRIORITY.waiting });
    if (refused[0]) throw new Conflict(refused[0].reason);
    return undefined;
  },
});

/** Notes, with the change of stage itself, that the live address is to be audited. */
export async function auditAfterLaunch(
  { id: siteId, name }: { id: number; name: string },
  by: string,
  transaction: Transaction,
): Promise<void> {
  const title = `Audit of ${name} after its launch`;
  await enqueue(
    launchAuditJob,
    { siteId },
    { by, title, priority: PRIORITY.waiting, onlyKey: `launch ${siteId}` },
    transaction,
  );
}
