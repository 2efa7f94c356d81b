/** Pages as a browser showed them: their pictures, and what was noted beside them. */
import { QueryTypes, type Transaction } from 'sequelize';
import type { RenderedEvidence, RenderedView } from '#core/facts/rendered';
import { database } from '#server/platform/db/connection';
import { NotFound } from '#server/platform/errors';
import { storeSeenPicture, readStoredFile, FileRow } from '#server/platform/files/files';
import { readEvidence } from '#server/platform/packed';
import { AuditEvidence, SeenPicture } from './models';

/** Audits of an environment whose pictures are kept, the newest first. */
const KEPT_AUDITS = 5;

const picturesIn = ({ pages }: RenderedEvidence): Set<string> =>
  new Set(
    pages.flatMap(({ views }) =>
      views.flatMap((v) => [v.first, v.again, v.whole].flatMap((p) => p?.sha256 ?? [])),
    ),
  );

const fileName = (sha256: string): string => `${sha256}.webp`;

interface Of {
  auditId: number;
  environmentId: number;
}

/**
 * Keeps the pictures of an audit, each once for its environment, and lets go of those that only old audits have.
 * @param fresh those taken just now; others are there from an audit before
 */
export async function saveSeenPictures(
  { auditId, environmentId }: Of,
  rendered: RenderedEvidence | undefined,
  fresh: ReadonlyMap<string, Buffer>,
  transaction: Transaction,
): Promise<void> {
  const wanted = rendered ? [...picturesIn(rendered)] : [];
  if (!wanted.length) return;
  const known = await FileRow.findAll({
    where: { environmentId, siteId: null, name: wanted.map(fileName) },
    attributes: ['id', 'name'],
    transaction,
  });
  const ids = new Map(known.map((f) => [f.name, f.id]));
  for (const sha256 of wanted) {
    const name = fileName(sha256);
    const bytes = fresh.get(sha256);
    if (ids.has(name) || !bytes) continue;
    ids.set(name, (await storeSeenPicture({ environmentId, name, bytes }, transaction)).id);
  }
  const rows = wanted.flatMap((sha256) => {
    const fileId = ids.get(fileName(sha256));
    return fileId === undefined ? [] : [{ auditId, sha256, fileId }];
  });
  await SeenPicture.bulkCreate(rows, { transaction, ignoreDuplicates: true });
  await letGo(environmentId, transaction);
}

/** Pictures of what was published to a client, or what one said yes to, are kept however old they are. */
async function letGo(environmentId: number, transaction: Transaction): Promise<void> {
  const kept = await database().query<{ id: number }>(
    `SELECT DISTINCT s.audit_id AS id FROM seen_picture s JOIN audit a ON a.id = s.audit_id
      WHERE a.environment_id = ? ORDER BY s.audit_id DESC LIMIT ${KEPT_AUDITS}`,
    { type: QueryTypes.SELECT, replacements: [environmentId], transaction },
  );
  await database().query(
    `DELETE s FROM seen_picture s JOIN audit a ON a.id = s.audit_id
      WHERE a.environment_id = :environmentId AND s.audit_id NOT IN (:kept)
        AND s.audit_id NOT IN (SELECT audit_id FROM report_edition)
        AND s.audit_id NOT IN (SELECT audit_id FROM approval)`,
    { replacements: { environmentId, kept: kept.map((k) => k.id) }, transaction },
  );
  await database().query(
    `DELETE f FROM file f LEFT JOIN seen_picture s ON s.file_id = f.id
      WHERE f.environment_id = :environmentId AND f.site_id IS NULL AND f.type = 'image/webp' AND s.file_id IS NULL`,
    { replacements: { environmentId }, transaction },
  );
}

/** @throws NotFound */
export async function seenPicture(auditId: number, sha256: string): Promise<Buffer> {
  const row = await SeenPicture.findOne({ where: { auditId, sha256 } });
  if (!row) throw new NotFound('This picture is not kept any more: pictures of the newest audits are.');
  return (await readStoredFile(row.fileId)).data;
}

/** A page on one screen, as the screens show it: without its facts. */
type SeenView = Omit<RenderedView, 'facts' | 'again'>;

export interface SeenPages {
  browser: string | null;
  /** Why there is nothing to see. */
  missing: string | null;
  pages: { url: string; views: SeenView[] }[];
}

/** What a browser saw of an audit’s pages. @throws NotFound where the audit has no evidence */
export async function seenPages(auditId: number): Promise<SeenPages> {
  const stored = await AuditEvidence.findByPk(auditId);
  if (!stored) throw new NotFound('This audit has no evidence, or not any more.');
  const { rendered } = await readEvidence(stored.data);
  const kept = new Set(
    (await SeenPicture.findAll({ where: { auditId }, attributes: ['sha256'] })).map((r) => r.sha256),
  );
  const shown = ({ facts: _, first, again: __, whole, ...view }: RenderedView): SeenView => ({
    ...view,
    ...(first && kept.has(first.sha256) ? { first } : {}),
    ...(whole && kept.has(whole.sha256) ? { whole } : {}),
  });
  return {
    browser: rendered?.browser ?? null,
    missing: rendered ? (rendered.missing ?? null) : 'no browser has looked at its pages yet',
    pages: (rendered?.pages ?? []).map(({ url, views }) => ({ url, views: views.map(shown) })),
  };
}
