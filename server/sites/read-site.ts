/** Reading a first brief from a running site. */
import { commonMark, serverPage } from '#core/checks/view/page-marks';
import type { AccessDto } from '#core/entry/site';
import { refusalOf, type RefusalKind } from '#core/extract/refusal';
import { finalStatus, lastAnswer, type Evidence, type PageEvidence } from '#core/facts/evidence';
import { ENVIRONMENT_KINDS, type EnvironmentKind, type Stage } from '#core/facts/situation';
import { proposeBrief, type Proposal } from '#core/proposals/propose-brief';
import { collect } from '#probe/collect';
import type { Access } from '#probe/http/access';
import { Unreachable } from '#server/platform/errors';
import { IsIn, IsOptional, IsString } from '#server/platform/http/validation';
import { defineJob } from '#server/platform/jobs/definition';
import { jobResult } from '#server/platform/jobs/queue';
import { networkSettings } from '#server/platform/network/network';
import { encryptSecret, decryptSecret } from './access';
import { refuseUnusable } from './environments';

export interface ReadFrom {
  url: string;
  proposals: Proposal[];
  /** What the live address tells of the stage. */
  stage?: { value: Stage; from: string };
}

/** An access that was entered for this one reading. @param kept sealed */
function wayInFor(url: string, kept: string | undefined): Access | undefined {
  if (kept === undefined) return undefined;
  const given = decryptSecret<AccessDto>(kept);
  if (!given) throw new Error('the access cannot be read: this worker has another NUXT_SESSION_PASSWORD');
  const { kind, name = '', value = '' } = given;
  const origins = [new URL(url).origin];
  if (kind === 'credentials') return { kind, user: name, password: value, origins };
  return kind === 'parameter' || kind === 'cookie' ? { kind, name, value, origins } : { kind };
}

const REFUSED: Record<RefusalKind, string> = {
  credentials: 'it asks for a user name and a password',
  forbidden: 'it refuses the visitor',
  'too-many': 'it says that it was asked too often',
  challenge: 'it wants proof of a person',
};

/** The home page, where it is one. @throws Unreachable with the reason; its data say what would help */
function homeOf({ pages }: Evidence, url: string): PageEvidence {
  const home = pages.find((p) => p.via === 'home');
  const status = home && finalStatus(home.chain);
  if (!home || status === undefined)
    throw new Unreachable(
      `Nothing could be read at ${url}: ${home?.chain.error?.message ?? 'nothing answered'}.`,
    );
  refuseNoPage(home, status, url);
  return home;
}

/** @throws Unreachable where the answer is no page of the site */
function refuseNoPage(home: PageEvidence, status: number, url: string): void {
  const { headers = [] } = lastAnswer(home.chain) ?? {};
  const refused = refusalOf({ status, headers, facts: home.facts });
  if (refused)
    throw new Unreachable(`Nothing was read at ${url}: ${REFUSED[refused]} (${status}).`, {
      needs: refused === 'credentials' ? 'credentials' : undefined,
    });
  if (status < 200 || status > 299 || !home.facts)
    throw new Unreachable(
      `Nothing was read at ${url}: it answered ${status}${home.facts ? '' : ', and no HTML page'}.`,
    );
  if (commonMark({ url: home.url, facts: home.facts }, 'signIn'))
    throw new Unreachable(`Nothing was read at ${url}: it shows a sign-in form.`, { needs: 'cookie' });
}

/** What the live address says of the stage; a page that is parked or says nothing tells nothing. */
function stageBy({ url, facts }: PageEvidence): ReadFrom['stage'] {
  const page = { url, facts: facts! };
  if (
    commonMark(page, 'parking') ??
    commonMark(page, 'unknownName') ??
    commonMark(page, 'samplePage') ??
    serverPage(page)
  )
    return undefined;
  return commonMark(page, 'holding')
    ? { value: 'pre-launch', from: `${url} shows a holding page` }
    : { value: 'launched', from: `${url} answers with a site` };
}

class ReadPayload {
  @IsString() url!: string;
  @IsIn(ENVIRONMENT_KINDS) kind!: EnvironmentKind;
  /** The access, sealed. */
  @IsOptional() @IsString() access?: string;
}

/** Reading a first brief from a running site. */
const readJob = defineJob<ReadPayload>({
  name: 'read a site',
  lane: 'waited',
  payload: ReadPayload,
  async run({ url, kind, access }, { signal, progress }): Promise<ReadFrom> {
    const evidence = await collect({
      ...networkSettings(),
      url,
      kind,
      brief: kind === 'live' ? { preferredHost: new URL(url).hostname } : {},
      access: wayInFor(url, access),
      maxPages: 20,
      auditSeconds: 30,
      signal,
      onProgress: progress,
    });
    const home = homeOf(evidence, url);
    const stage = kind === 'live' ? stageBy(home) : undefined;
    return { url: home.url, proposals: proposeBrief(evidence), ...(stage ? { stage } : {}) };
  },
});

/**
 * Reads a running site, as an audit would; it ends when the caller leaves.
 * @throws Unreachable with the reason when nothing can be read there
 */
export function readFromSite(
  { url, kind = 'live', access }: { url: string; kind?: EnvironmentKind; access?: AccessDto },
  by: string,
  signal: AbortSignal,
): Promise<ReadFrom> {
  if (access) refuseUnusable(access);
  const payload: ReadPayload = { url, kind, ...(access ? { access: encryptSecret(access) } : {}) };
  return jobResult(readJob, payload, { by, title: `Reading ${url}` }, signal);
}
