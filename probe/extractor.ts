/** Bytes to page facts, wherever that is worked out: here, or in worker threads. */
import { decodeText } from '#core/extract/charset';
import { extractPage, type PageFacts } from '#core/extract/html';
import { selectElements } from '#core/extract/selected';

export interface PageReading {
  /** Encoding that was declared; undefined where the default had to do. */
  charset?: string;
  facts: PageFacts;
}

/** @param selectors of elements that own checks ask for
 * @returns what one page's bytes say. @throws Error where a page could not be read in time */
export type Extract = (
  body: Buffer,
  contentType: string | undefined,
  url: string,
  selectors?: readonly string[],
) => PageReading | Promise<PageReading>;

/** In this thread. */
export const extractHere: Extract = (body, contentType, url, selectors) => {
  const { text, charset, from } = decodeText(body, contentType);
  return {
    // what says nothing is windows-1252, but for XHTML, which is UTF-8 then
    ...(from === 'default' && charset !== 'utf-8' ? {} : { charset }),
    facts: {
      ...extractPage(text, url),
      ...(selectors?.length ? { selected: selectElements(text, selectors) } : {}),
    },
  };
};
