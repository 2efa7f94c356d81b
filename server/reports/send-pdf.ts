/** Editions as PDF: made once for the agency and once for each contact, since they never change. */
import { setHeaders, type H3Event } from 'h3';
import { now } from '#server/platform/clock';
import { inTransaction } from '#server/platform/db/transaction';
import { TooMany } from '#server/platform/errors';
import { plainName } from '#server/platform/http/file-names';
import type { Edition } from './composing';
import type { Guest } from './guest';
import { EditionPdf, ShareLink } from './models';
import { printPdf } from './printing';

/** PDFs that are made for one link within a day; editions that were made before are not counted. */
const MOST_A_DAY = 20;
const AGENCY = 0;

/** Links that a PDF is being made for. */
const underWay = new Set<number>();

/** Counts one more PDF of a link. @throws TooMany */
async function countOne(link: ShareLink): Promise<void> {
  const today = now().toISOString().slice(0, 10);
  await inTransaction(async (transaction) => {
    const held = await ShareLink.findByPk(link.id, { transaction, lock: true, rejectOnEmpty: true });
    const made = held.pdfsOn === today ? held.pdfs : 0;
    if (made >= MOST_A_DAY)
      throw new TooMany('Too many PDFs were made for this link today. Try again tomorrow.');
    await held.update({ pdfsOn: today, pdfs: made + 1 }, { transaction });
  });
}

async function made(event: H3Event, path: string, guest: Guest | undefined): Promise<Buffer> {
  if (!guest) return printPdf(event, path, { isFirst: true });
  const { link } = guest;
  if (underWay.has(link.id))
    throw new TooMany('The PDF of this link is being made already. Wait a moment and try again.');
  underWay.add(link.id);
  try {
    await countOne(link);
    return await printPdf(event, path, { isFirst: false });
  } finally {
    underWay.delete(link.id);
  }
}

/**
 * @param path the page that is printed
 * @param guest the contact who asks; without one, somebody of the agency
 * @throws Unavailable, TooMany
 */
export async function sendPdf(
  event: H3Event,
  path: string,
  { id: editionId, report, number }: Pick<Edition, 'id' | 'report' | 'number'>,
  guest?: Guest,
): Promise<Buffer> {
  const contactId = guest?.contact.id ?? AGENCY;
  const kept = await EditionPdf.findOne({ where: { editionId, contactId } });
  const data = kept?.data ?? (await made(event, path, guest));
  if (!kept) await EditionPdf.upsert({ editionId, contactId, madeAt: now(), data });
  setHeaders(event, {
    'content-type': 'application/pdf',
    'content-disposition': `attachment; filename="${plainName(`${report.site} ${number}`)}.pdf"`,
    'x-content-type-options': 'nosniff',
  });
  return data;
}
