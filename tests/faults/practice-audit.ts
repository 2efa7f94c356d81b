/** Audits an environment of the practice net over the real code path. */
import { fullChecklist } from '#core/checks/engine/checklist';
import { judge, type JudgedFinding } from '#core/checks/engine/judge';
import { askedFor } from '#core/checks/engine/own-check';
import type { Approval } from '#core/facts/approval';
import type { Brief } from '#core/facts/brief';
import type { Evidence } from '#core/facts/evidence';
import type { HostProfile } from '#core/facts/host-profile';
import type { Situation } from '#core/facts/situation';
import { checkById } from '#core/checks/catalogue/index';
import type { Checklist } from '#core/facts/checklist';
import { collect } from '#probe/collect';
import { USUAL_BROWSER } from '#probe/rendering/browser';
import { officialFacts, environmentDates } from '../../net/official';
import type { PracticeNet } from '../../net/practice-net';
import { HOSTS, SITES, keyOf, preferredHost } from '../../net/sites';
import { agencyBook, buildOf, intendedOf } from './practice-facts';

export interface PracticeAudit {
  evidence: Evidence;
  findings: JudgedFinding[];
  of: (check: string) => JudgedFinding;
}

/** The brief of a site; where a browser looks, it asks for one page beside the home page, to be quick. */
function briefOf(net: PracticeNet, slug: string, { browser }: Pick<PracticeOptions, 'browser'>): Brief {
  const brief = officialFacts(slug, new Date(), net.switches) as Brief;
  return browser ? { ...brief, requiredPages: ['/about/'] } : brief;
}

/** What no browser has looked at cannot be told. */
const withoutBrowser = (checklist: Checklist): Checklist => ({
  ...checklist,
  items: checklist.items.filter((i) => !checkById.get(i.check)?.needs.rendered),
});

/** Collects the evidence about an environment. @param key whether the auditor has the credentials of staging */
export async function collectPractice(
  net: PracticeNet,
  slug: string,
  environment: 'live' | 'staging',
  more: Pick<PracticeOptions, 'key' | 'maxPages' | 'browser'> = {},
): Promise<Evidence> {
  const site = SITES.find((s) => s.slug === slug)!;
  const url =
    environment === 'live'
      ? `https://${preferredHost(site)}/`
      : `https://${site.staging.host}${site.staging.path}`;
  const { user, password } = keyOf(site);
  return collect({
    url,
    kind: environment === 'live' ? 'live' : 'before',
    brief: briefOf(net, slug, more),
    resolvers: [net.resolver],
    map: net.map,
    bootstrap: net.bootstrap,
    ca: [net.caPem],
    timeoutMs: 15_000,
    retryPauseMs: 20,
    maxPages: more.maxPages,
    ...(more.browser ? { render: { browser: { ...USUAL_BROWSER, keys: [net.keyDigest] }, pages: 0 } } : {}),
    asked: askedFor(fullChecklist(), preferredHost(site)),
    ...(environment === 'live' && site.stage === 'launched'
      ? { build: buildOf(slug, new Date().getUTCFullYear()).files.map((f) => f.path) }
      : {}),
    ...(more.key
      ? { access: { kind: 'credentials', user, password, origins: [`https://${site.staging.host}`] } }
      : {}),
  });
}

/** The machine that runs the tests may be busy: only a site told to be slow is asked to be quick. */
const LENIENT = {
  ...fullChecklist(),
  items: fullChecklist().items.map((i) =>
    i.check === 'delivery.response-time' ? { ...i, parameters: { milliseconds: 10_000 } } : i,
  ),
};

export interface PracticeOptions {
  key?: boolean;
  staging?: Evidence;
  /** What a contact said yes to, on staging. */
  approved?: Evidence;
  launched?: boolean;
  maxPages?: number;
  /** Whether a browser looks at the home page and one more. */
  browser?: boolean;
}

const YES: Approval = {
  by: 'Nell Carrow',
  at: '2026-11-20T10:00:00Z',
  environment: 'Staging',
  isHere: false,
  isLive: false,
};

export async function auditPractice(
  net: PracticeNet,
  slug: string,
  environment: 'live' | 'staging',
  situation: Situation,
  options: PracticeOptions = {},
): Promise<PracticeAudit> {
  const site = SITES.find((s) => s.slug === slug)!;
  const brief = briefOf(net, slug, options);
  const profile = HOSTS.find((h) => h.name === site.host) as unknown as HostProfile;
  const evidence = await collectPractice(net, slug, environment, options);
  const at = new Date(evidence.finishedAt);
  const checklist = net.switches.isOn(slug, 'live', 'slow') ? fullChecklist() : LENIENT;
  const findings = judge({
    evidence,
    brief,
    profile,
    checklist: options.browser ? checklist : withoutBrowser(checklist),
    situation,
    at,
    skipManual: true,
    book: agencyBook(slug),
    intended: intendedOf(slug),
    environment: environmentDates(site, net.switches, at),
    launched: options.launched ?? site.stage === 'launched',
    ...(options.staging ? { staging: options.staging } : {}),
    ...(options.approved ? { approved: options.approved, approval: YES } : {}),
    ...(environment === 'live' && site.stage === 'launched'
      ? { build: buildOf(slug, at.getUTCFullYear()) }
      : {}),
  });
  return {
    evidence,
    findings,
    of: (check) => {
      const f = findings.find((x) => x.check === check);
      if (!f) throw new Error(`no finding of ${check}`);
      return f;
    },
  };
}
