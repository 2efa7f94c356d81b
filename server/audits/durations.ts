/** How long audits took, so that a night's can be told beforehand. */
import { QueryTypes } from 'sequelize';
import type { Part } from '#core/facts/parts';
import { durationsFrom } from '#core/schedule/duration';
import { database } from '#server/platform/db/connection';

/** Of the newest so many. */
const NEWEST = 3000;

export async function auditDurations(): Promise<ReturnType<typeof durationsFrom>> {
  const rows = await database().query<{
    environmentId: number;
    parts: string | Part[] | null;
    tookMs: number;
  }>(
    `SELECT environment_id AS environmentId, JSON_QUERY(scope, '$.parts') AS parts, took_ms AS tookMs FROM audit
      WHERE status = 'done' AND took_ms IS NOT NULL ORDER BY id DESC LIMIT ${NEWEST}`,
    { type: QueryTypes.SELECT },
  );
  // the driver reads JSON by itself where the column says that it is
  return durationsFrom(
    rows.map(({ parts, ...row }) => ({
      ...row,
      parts: typeof parts === 'string' ? (JSON.parse(parts) as Part[]) : parts,
    })),
  );
}
