/**
 * What checks may know beside evidence, brief and host profile: the agency's other clients, the environment's
 * dates, the state that was approved.
 */
import { QueryTypes } from 'sequelize';
import type { JudgeContext } from '#core/checks/engine/judge';
import type { AgencyBook, BookEntry } from '#core/facts/agency-book';
import type { Brief } from '#core/facts/brief';
import { database } from '#server/platform/db/connection';
import { lastAuditedBefore, type Environment, type Site } from '#server/sites';
import { hasEvidence } from './find';

const KEPT_MS = 30_000;
let book: { at: number; entries: Promise<(BookEntry & { clientId: number })[]> } | undefined;

async function readBook(): Promise<(BookEntry & { clientId: number })[]> {
  const rows = await database().query<{ clientId: number; client: string; site: string; data: string }>(
    'SELECT s.client_id AS clientId, c.name AS client, s.name AS site, b.data FROM brief b JOIN (SELECT site_id, MAX(version) AS version FROM brief GROUP BY site_id) n ON n.site_id = b.site_id AND n.version = b.version JOIN site s ON s.id = b.site_id JOIN client c ON c.id = s.client_id',
    { type: QueryTypes.SELECT },
  );
  return rows.map(({ clientId, client, site, data }) => {
    const b = JSON.parse(data) as Brief;
    return {
      clientId,
      client,
      site,
      tokens: (b.tokens ?? []).map((t) => t.value),
      analyticsIds: b.analyticsIds ?? [],
      privateEmails: b.privateEmails ?? [],
      profileLinks: b.profileLinks ?? [],
    };
  });
}

/** The newest briefs of all other clients; read anew after half a minute, since many audits end in a row. */
async function bookWithout(clientId: number): Promise<AgencyBook> {
  if (!book || Date.now() - book.at > KEPT_MS) {
    const entries = readBook();
    book = { at: Date.now(), entries };
    entries.catch(() => {
      book = undefined;
    });
  }
  return (await book.entries).filter((e) => e.clientId !== clientId);
}

/** The newest audit of the last environment before the live one; undefined where it was not audited. */
export async function stagingAudit(environment: Environment, site: Site): Promise<number | undefined> {
  if (environment.kind !== 'live' || site.stage !== 'launched') return undefined;
  const before = await lastAuditedBefore(site.id);
  const { lastAuditId } = before ?? {};
  return lastAuditId && (await hasEvidence(lastAuditId)) ? lastAuditId : undefined;
}

export async function judgeContextFor(
  environment: Environment,
  site: Site,
): Promise<Omit<JudgeContext, 'staging' | 'approval' | 'approved' | 'intended' | 'build'>> {
  return {
    book: await bookWithout(site.clientId),
    stage: site.stage,
    launched: site.stage === 'launched',
    environment: {
      ...(environment.setUpOn ? { setUp: environment.setUpOn } : {}),
      ...(environment.changedOn ? { changed: environment.changedOn } : {}),
      ...(environment.endsOn ? { endsOn: environment.endsOn } : {}),
    },
  };
}
