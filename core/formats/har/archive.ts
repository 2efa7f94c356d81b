/** HTTP Archive 1.2: its shape. The format's published schema checks it in the tests. */
import type { Chain, Exchange, Header } from '#core/facts/evidence';

export interface NameValue {
  name: string;
  value: string;
}
export interface HarEntry {
  startedDateTime: string;
  time: number;
  request: {
    method: string;
    url: string;
    httpVersion: string;
    cookies: NameValue[];
    headers: NameValue[];
    queryString: NameValue[];
    headersSize: number;
    bodySize: number;
  };
  response: {
    status: number;
    statusText: string;
    httpVersion: string;
    cookies: NameValue[];
    headers: NameValue[];
    content: { size: number; compression?: number; mimeType: string; text?: string; encoding?: string };
    redirectURL: string;
    headersSize: number;
    bodySize: number;
  };
  cache: Record<string, never>;
  timings: {
    blocked: number;
    dns: number;
    connect: number;
    send: number;
    wait: number;
    receive: number;
    ssl: number;
  };
  serverIPAddress?: string;
  connection?: string;
  pageref?: string;
  /**
   * Armband's own fields (the format lets names with an underscore stand): which chain, its end, and what
   * went wrong.
   */
  _chain?: number;
  _end?: Chain['end'];
  _error?: { code: string; message: string };
  _chainError?: { code: string; message: string };
  _cut?: boolean;
  _timing?: Exchange['timing'];
}
export interface Har {
  log: {
    version: string;
    creator: { name: string; version: string };
    pages: HarPage[];
    entries: HarEntry[];
    comment?: string;
  };
}
interface HarPage {
  startedDateTime: string;
  id: string;
  title: string;
  pageTimings: { onContentLoad: number; onLoad: number };
}

/** The value of a header, or nothing. */
export const headerOf = (headers: readonly Header[], name: string): string =>
  headers.find(([n]) => n.toLowerCase() === name)?.[1] ?? '';
