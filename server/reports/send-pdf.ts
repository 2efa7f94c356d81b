import { setHeaders, type H3Event } from 'h3';
import { plainName } from '../platform/http/file-names';
import { printed } from './printing';

/** @param path the page that is printed; @param name what the file is called, in any letters */
export async function sendPdf(event: H3Event, path: string, name: string): Promise<Buffer> {
  const pdf = await printed(event, path);
  setHeaders(event, {
    'content-type': 'application/pdf',
    'content-disposition': `attachment; filename="${plainName(name)}.pdf"`,
    'x-content-type-options': 'nosniff',
  });
  return pdf;
}
