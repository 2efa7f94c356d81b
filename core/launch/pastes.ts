/** What the steps of a run sheet have ready to paste. */
import type { Brief } from '#core/facts/brief';
import type { PasteKind } from '#core/facts/launch';
import type { CutOver } from './cut-over';
import { redirectLines } from '#core/recipes/redirects';

export interface PasteInput {
  plan: Pick<CutOver, 'wanted' | 'lowered' | 'move'> | null;
  brief: Brief;
  siteName: string;
  liveUrl: string;
  /** The hosts of the live site, the preferred one first. */
  hosts: readonly string[];
  /** When the launch is, and when the last cache has let go, as the client reads it. */
  when: string;
  until: string;
}

const TEXTS: Record<PasteKind, (input: PasteInput) => string> = {
  wanted: ({ plan }) => plan?.wanted ?? '',
  zone: ({ plan }) => plan?.move?.zone ?? '',
  lowered: ({ plan }) => plan?.lowered ?? '',
  names: ({ hosts }) => hosts.join('\n'),
  servers: ({ brief }) => (brief.nameServers ?? []).join('\n'),
  forward: ({ brief, hosts, liveUrl }) =>
    hosts
      .slice(1)
      .concat(hosts.length > 1 ? [] : hosts)
      .map((host) => `${host} -> ${brief.forwardTo ?? liveUrl} (permanent, 301)`)
      .join('\n'),
  redirects: ({ brief, hosts }) => redirectLines(brief.formerAddresses ?? [], 'nginx', hosts),
  note: ({ siteName, liveUrl, when, until }) =>
    [
      `We set ${siteName} live on ${when}, at ${liveUrl}.`,
      `Some visitors may still see the old site until ${until}: their provider remembers the old address until then.`,
      'Mail is not touched. If anything looks wrong, call us before you change anything.',
    ].join('\n'),
};

/** @returns an empty text where there is nothing to paste */
export const pasteOf = (kind: PasteKind, input: PasteInput): string => TEXTS[kind](input);
