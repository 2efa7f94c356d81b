/** Which requests of a page count a visit. */
import { ID_SHAPE, namesId } from './analytics-id';
import type { MeasuringHit } from '#core/facts/rendered';

/** A request as a browser is about to send it. */
export interface SentRequest {
  url: string;
  /** As browsers name it: document, script, image, fetch, ping … */
  type: string;
  body?: string;
}

/** What is loaded to be used by the page counts nobody by itself. */
const LOADED: ReadonlySet<string> = new Set([
  'document',
  'script',
  'stylesheet',
  'font',
  'media',
  'manifest',
  'texttrack',
]);
/** Parameters that name what happened (common practice, from memory). */
const EVENT_NAMES = ['en', 'event', 'event_name', 'ea', 't', 'e'];
const LONGEST = 500;

const decoded = (text: string): string => {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
};

function idIn(text: string, ids: readonly string[]): string | undefined {
  return ids.find((id) => id && namesId(text, id)) ?? ID_SHAPE.exec(text)?.[0];
}

/** What a hit says happened: from its query, its form or its JSON. */
function eventOf({ url, body = '' }: SentRequest): string | undefined {
  const query = new URL(url).searchParams;
  const form = new URLSearchParams(body.split('\n', 1)[0]);
  for (const name of EVENT_NAMES) {
    const value = query.get(name) ?? form.get(name);
    if (value) return value.slice(0, 80);
  }
  const json = /"(?:en|event|event_name|name|type)"\s*:\s*"([^"]{1,80})"/.exec(body);
  return json?.[1];
}

/**
 * Whether a request tells somebody of a visit: a beacon, or anything that carries an analytics ID and is not
 * loaded for the page to use (common practice).
 * @param ids the analytics IDs of the brief
 * @returns what it is, to be kept; undefined for a request like any other
 */
export function measuringHit(request: SentRequest, ids: readonly string[]): MeasuringHit | undefined {
  const { url, type, body = '' } = request;
  if (LOADED.has(type) || !/^https?:/.test(url)) return undefined;
  const address = new URL(url);
  const id = idIn(`${decoded(address.pathname + address.search)}\n${body}`, ids);
  if (id === undefined && type !== 'ping') return undefined;
  const event = eventOf(request);
  return {
    url: url.slice(0, LONGEST),
    ...(id === undefined ? {} : { id }),
    ...(event === undefined ? {} : { event }),
  };
}

/** Whether a hit counts a page that was seen, rather than something that was done on it. */
export const isPageView = ({ event }: Pick<MeasuringHit, 'event'>): boolean =>
  event === undefined || /^page[ _-]?view$|^view$|^pv$/i.test(event);
