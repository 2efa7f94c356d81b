/** A report for the client: what an audit found, in words for people outside the field. Pure. */
import type { Finding, Severity } from '#core/facts/finding';
import { CLOSED_STATES, type FixState } from '#core/facts/fix';
import type { Stage } from '#core/facts/situation';
import type { BandSegment, Gate } from '#core/score/score';
import { isMessage, type MessageValue, type Message } from '#core/facts/message';
import { formatMessage } from '#core/text/messages';
import { compareWorst } from '#core/score/urgency';
import { REPORT_PARTS, type ReportLanguage, type ReportPart, type ReportSetup } from './setup';
import { reportTexts } from './texts/index';
import { WORDINGS } from './texts/wordings';
import { headingOf } from '#core/facts/heading';
import { NOT_SO } from '#core/text/common-messages';

/** How the agency shows itself. */
export interface AgencyLook {
  name: string;
  /** Hexadecimal: #rrggbb. */
  colour: string;
  hasLogo: boolean;
}

/** One thing of the report. */
export interface ReportItem {
  check: string;
  about: string;
  trouble: string;
  /** What the audit found, in a sentence; nothing where it is known from before there were codes. */
  found?: string;
  severity: Severity;
  /** Of so many things that were looked at so many fail; nothing for the site as a whole. */
  failing?: number;
  who?: string;
  /** YYYY-MM-DD. */
  due?: string;
  /** Somebody is at it, or says that it is done. */
  state?: 'in progress' | 'to verify';
  /** The contact of the client whose part it is. */
  contactId?: number;
}

/** A picture of a page on one screen. */
interface ReportPicture {
  sha256: string;
  width: number;
  height: number;
}
export interface ReportPage {
  url: string;
  path: string;
  title: string;
  desktop?: ReportPicture;
  phone?: ReportPicture;
}

/** What a person looked through. */
interface ManualItem {
  about: string;
  isDone: boolean;
  /** ISO 8601. */
  at?: string;
}

export interface Report {
  language: ReportLanguage;
  site: string;
  client: string;
  stage: Stage;
  environment: string;
  isLive: boolean;
  url: string;
  auditId: number;
  /** When it was looked at, ISO 8601. */
  lookedAt: string;
  agency: AgencyLook;
  parts: ReportPart[];
  letter: string;
  signedBy: string;
  gate: Gate;
  verdict: string;
  /** What is beside the verdict, in sentences. */
  beside: string[];
  band: BandSegment[];
  /** When what it is compared with was looked at; nothing where there is nothing before. */
  since: string | null;
  /** Whether that is what the report before told, and not the first look. */
  isSinceReport: boolean;
  mended: ReportItem[];
  fresh: ReportItem[];
  open: ReportItem[];
  /** Small things that are open and not listed. */
  smallOpen: number;
  /** Left as it is, on purpose. */
  left: ReportItem[];
  pages: ReportPage[];
  manual: ManualItem[];
}

/** What is known of a fault’s fix. */
export interface ReportFix {
  check: string;
  state: FixState;
  who: string | null;
  contactId: number | null;
  due: string | null;
}

export interface ReportInput {
  site: string;
  client: string;
  stage: Stage;
  environment: { name: string; isLive: boolean; url: string };
  audit: { id: number; at: string };
  gate: Gate;
  band: BandSegment[];
  findings: readonly Finding[];
  /** Those of the report before, else of the first look. */
  before: { at: string; isReport: boolean; findings: readonly Finding[] } | null;
  fixes: readonly ReportFix[];
  /** When somebody last vouched for a manual check, by its id. */
  attestedAt: ReadonlyMap<string, string>;
  pages: readonly ReportPage[];
  setup: ReportSetup;
  agency: AgencyLook;
}

const isOpen = (f: Finding): boolean => f.outcome === 'failed' && !f.accepted;

const LONGEST = 300;

/** What was found, for the client: notes of the agency, and whose else a value is, stay with the agency. */
function foundFor({ code, data, outcome, byHand }: Finding, language: ReportLanguage): string | undefined {
  if (outcome !== 'failed' || byHand || !code || code === NOT_SO.code || code.startsWith(ATTESTED))
    return undefined;
  const { somebodyElse } = reportTexts(language).shared;
  return formatMessage(withoutOwner({ code, data }, somebodyElse), WORDINGS[language]).slice(0, LONGEST);
}
/** What somebody vouched for carries their name and note. */
const ATTESTED = 'attested/';

/** @param somebodyElse stands for another client's name, at any depth */
function withoutOwner({ code, data = {} }: Message, somebodyElse: string): Message {
  const bare = (value: MessageValue): MessageValue =>
    isMessage(value)
      ? withoutOwner(value, somebodyElse)
      : Array.isArray(value)
        ? value.map((v) => (isMessage(v) ? withoutOwner(v, somebodyElse) : v))
        : value;
  const kept = Object.entries(data).map(([name, value]) => [
    name,
    name === 'owner' && value !== undefined ? somebodyElse : bare(value),
  ]);
  return { code, data: Object.fromEntries(kept) as Message['data'] };
}

/** What a finding is about and what it means; a check of the agency’s own speaks by its title. */
function itemOf(finding: Finding, { setup, fixes }: Pick<ReportInput, 'setup' | 'fixes'>): ReportItem {
  const { check, severity, places } = finding;
  const [about, trouble] = reportTexts(setup.language).checks[check] ?? [headingOf(finding), ''];
  const failing = places.filter((p) => p.outcome === 'failed' && !p.accepted).length;
  const fix = fixes.find((f) => f.check === check && !CLOSED_STATES.has(f.state));
  const state = fix?.state;
  const found = foundFor(finding, setup.language);
  return {
    check,
    about,
    trouble: setup.words.find((w) => w.check === check)?.text.trim() || trouble,
    ...(found ? { found } : {}),
    severity,
    ...(failing > 1 ? { failing } : {}),
    ...(fix?.who ? { who: fix.who } : {}),
    ...(fix?.contactId ? { contactId: fix.contactId } : {}),
    ...(fix?.due ? { due: fix.due } : {}),
    ...(state === 'in progress' || state === 'to verify' ? { state } : {}),
  };
}

const named = (letter: string, { site, client }: { site: string; client: string }): string =>
  letter.replaceAll('{site}', site).replaceAll('{client}', client);

/** Checks that failed in one of two audits and hold in the other. */
function turned(from: readonly Finding[], to: readonly Finding[]): Set<string> {
  const failed = new Set(from.filter(isOpen).map((f) => f.check));
  return new Set(to.filter((f) => f.outcome === 'passed' && failed.has(f.check)).map((f) => f.check));
}

/** Puts a report together. */
export function composeReport(input: ReportInput): Report {
  const { site, client, stage, environment, audit, gate, band, setup, agency, before } = input;
  const texts = reportTexts(setup.language);
  const leftOut = new Set(setup.leftOut);
  const told = input.findings.filter((f) => !leftOut.has(f.check)).sort(compareWorst);
  const open = told.filter(isOpen);
  const listed = setup.smallToo ? open : open.filter((f) => f.severity !== 'minor');
  const mended = before ? turned(before.findings, input.findings) : new Set<string>();
  const failedBefore = new Set((before?.findings ?? []).filter(isOpen).map((f) => f.check));
  const manual = told.filter((f) => f.byHand && f.outcome !== 'inapplicable');
  const blockers = input.findings.filter((f) => isOpen(f) && f.severity === 'blocker').length;
  const undecided = told.filter((f) => !f.byHand && f.outcome === 'cantTell').length;
  const waiting = manual.filter((f) => f.outcome !== 'passed').length;
  const items = (findings: readonly Finding[]): ReportItem[] => findings.map((f) => itemOf(f, input));
  return {
    language: setup.language,
    site,
    client,
    stage,
    environment: environment.name,
    isLive: environment.isLive,
    url: environment.url,
    auditId: audit.id,
    lookedAt: audit.at,
    agency,
    parts: REPORT_PARTS.filter((part) => setup.parts.includes(part)),
    letter: named(setup.letter, input),
    signedBy: setup.signedBy,
    gate,
    verdict: texts.verdict(gate, blockers, environment.isLive && stage === 'launched'),
    beside: [
      open.length ? texts.openCount(open.length - blockers, blockers) : '',
      undecided ? texts.undecidedCount(undecided) : '',
      waiting ? texts.waitingCount(waiting) : '',
    ].filter(Boolean),
    band,
    since: before?.at ?? null,
    isSinceReport: before?.isReport ?? false,
    mended: items(told.filter((f) => mended.has(f.check))),
    fresh: before ? items(listed.filter((f) => !failedBefore.has(f.check))) : [],
    open: items(listed),
    smallOpen: open.length - listed.length,
    left: items(told.filter((f) => f.outcome === 'failed' && f.accepted)),
    pages: [...input.pages],
    manual: manual.map((f) => {
      const at = input.attestedAt.get(f.check);
      const isDone = f.outcome === 'passed';
      return { about: itemOf(f, input).about, isDone, ...(isDone && at ? { at } : {}) };
    }),
  };
}
