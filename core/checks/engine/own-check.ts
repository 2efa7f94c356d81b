/** The agency's own checks: building blocks turned into checks, and what an audit has to collect for them. */
import { BARE, type Checklist, type Comparison, type OwnCheck, type OwnTest } from '#core/facts/checklist';
import { lastAnswer } from '#core/facts/evidence';
import type { Judgement, PlaceResult } from '#core/facts/finding';
import type { AskedFor } from '#core/facts/asked-for';
import { fillNames } from '#core/facts/host-records';
import { foldLoosely } from '#core/text/fold';
import { isUsable } from '#core/checks/kit/dns-answers';
import { defineManualCheck, type Check, type CheckContext } from '#core/checks/kit/check';
import { cantTell, failed, overPages, overSite, passed, unsure } from '#core/checks/kit/judgement';
import type { ReadPage } from '#core/checks/view/read-page';
import { defineMessages } from '#core/text/messages';
import { isMessage, verbatim, type Message } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('engine.own-check', {
  'not-looked-for': 'this was not looked for when the evidence was collected: audit again',
  'no-selector': '“{at}” is no selector: {error}',
  'nothing-there': 'nothing there',
  empty: '(empty)',
  'no-page': 'there is no page',
  'path-not-asked': 'this path was not asked for when the evidence was collected: audit again',
  'record-not-asked': 'this record was not asked for when the evidence was collected: audit again',
});

/** @param host the preferred host, for `{host}`, `{domain}` and `{www}` */
export function askedFor(checklist: Checklist, host: string): AskedFor {
  const on = new Set(checklist.items.filter((i) => i.on !== false).map((i) => i.check));
  const tests = (checklist.own ?? [])
    .filter((c) => on.has(c.id))
    .map((c) => c.test)
    .filter((t): t is OwnTest => t?.at !== undefined);
  const at = (look: OwnTest['look']) => tests.filter((t) => t.look === look);
  return {
    selectors: [...new Set(at('element').map((t) => t.at!))].slice(0, 50),
    paths: [...new Set(at('status').map((t) => t.at!))].slice(0, 50),
    records: at('record')
      .map((t) => ({ name: fillNames(t.at!, host), type: t.type ?? 'TXT' }))
      .slice(0, 50),
    outsideLinks: on.has('indexing.outside-links'),
  };
}

/** A text against a pattern in which a star stands for anything; letter case and white space are folded. */
export function matchesPattern(pattern: string, text: string): boolean {
  const parts = foldLoosely(pattern)
    .split('*')
    .map((p) => p.trim());
  let rest = foldLoosely(text);
  if (parts.length === 1) return rest === parts[0];
  if (!rest.startsWith(parts[0]!)) return false;
  rest = rest.slice(parts[0]!.length);
  const last = parts.at(-1)!;
  for (const part of parts.slice(1, -1)) {
    const i = rest.indexOf(part);
    if (i < 0) return false;
    rest = rest.slice(i + part.length);
  }
  return rest.endsWith(last);
}

/** @param found nothing where there is none */
function compares(is: Comparison, value: string, found: readonly string[]): boolean {
  switch (is) {
    case 'there':
      return found.length > 0;
    case 'missing':
      return found.length === 0;
    case 'equals':
      return found.some((f) => f.trim() === value.trim());
    case 'differs':
      return found.every((f) => f.trim() !== value.trim());
    case 'contains':
      return found.some((f) => foldLoosely(f).includes(foldLoosely(value)));
    case 'matches':
      return found.some((f) => matchesPattern(value, f));
  }
}

const WORDS: Record<Comparison, string> = {
  there: 'is there',
  missing: 'is not there',
  equals: 'is',
  differs: 'is not',
  contains: 'contains',
  matches: 'matches',
};
const thing = (t: OwnTest): string =>
  t.look === 'element'
    ? `${t.at}${t.attribute ? `, ${t.attribute}` : ''}`
    : t.look === 'header'
      ? `header ${t.at}`
      : t.look === 'record'
        ? `${t.type ?? 'TXT'} of ${t.at}`
        : t.look === 'status'
          ? `status of ${t.at}`
          : 'the text';
/** A block in words: "header X-Robots-Tag is not there". */
export const inWords = (t: OwnTest): string =>
  `${thing(t)} ${WORDS[t.is]}${BARE.has(t.is) && t.look !== 'text' ? '' : ` ${t.value ?? ''}`}`.trim();

/** What one page has at the block's place; a sentence is why that cannot be told. */
function onPage(test: OwnTest, page: ReadPage): { found: string[]; raw?: string } | Message {
  if (test.look === 'header') {
    const lines = (page.answer?.headers ?? []).filter(([n]) => n.toLowerCase() === test.at!.toLowerCase());
    return {
      found: lines.map(([, v]) => v),
      raw: lines.map((l) => l.join(': ')).join('\n') || undefined,
    };
  }
  if (test.look === 'text')
    return {
      found:
        page.words.folded.includes(foldLoosely(test.value ?? '')) || page.words.carries(test.value ?? '')
          ? [test.value ?? '']
          : [],
    };
  const hit = page.facts.selected?.[test.at!];
  if (!hit) return msg('not-looked-for');
  if (hit.error) return msg('no-selector', { at: test.at, error: hit.error });
  const found = hit.elements
    .map((e) => (test.attribute ? e.attributes[test.attribute.toLowerCase()] : e.text))
    .filter((v): v is string => v !== undefined);
  return { found, raw: hit.elements[0]?.raw };
}

function judgePage(test: OwnTest, page: ReadPage): PlaceResult {
  const got = onPage(test, page);
  if (isMessage(got)) return unsure(page.url, got);
  const text = test.look === 'text';
  const good = text
    ? compares(test.is === 'missing' || test.is === 'differs' ? 'missing' : 'there', '', got.found)
    : compares(test.is, test.value ?? '', got.found);
  const values = got.found.slice(0, 3).join('; ').slice(0, 300);
  const found = !got.found.length ? msg('nothing-there') : values ? verbatim(values) : msg('empty');
  return (good ? passed : failed)(page.url, { expected: inWords(test), found, raw: got.raw });
}

/** The status of a path that the checklist asks for. */
function judgeStatus(test: OwnTest, context: CheckContext): Judgement {
  const { expected } = context.words;
  const probe = context.evidence.asked?.find((p) => p.path === test.at);
  if (!probe) return cantTell(msg('path-not-asked'), { expected });
  const status = lastAnswer(probe.chain)?.status;
  if (status === undefined)
    return cantTell(verbatim(probe.chain.error?.message) ?? commonMessage('no-answer'), { expected });
  const good = compares(test.is, test.value ?? '', [String(status)]);
  return overSite(context, (good ? passed : failed)(test.at!, { expected, found: verbatim(String(status)) }));
}

/** A record's value as people write it: texts without quotation marks, names without the final dot. */
const bareValue = (type: string, value: string): string =>
  type === 'TXT' ? value.replace(/^"|"$/g, '').replace(/" "/g, '') : value.replace(/\.$/, '');

/** A record that the checklist asks for. */
function judgeRecord(test: OwnTest, context: CheckContext): Judgement {
  const { evidence, view, words } = context;
  const { expected = '' } = words;
  const host = view.preferredHost;
  const name = fillNames(test.at!, host).toLowerCase().replace(/\.$/, '');
  const type = (test.type ?? 'TXT').toUpperCase();
  const answer = evidence.dns.answers.find(
    (a) => a.role === 'resolver' && !a.unchecked && a.name.toLowerCase() === name && a.type === type,
  );
  if (!answer)
    return cantTell(msg('record-not-asked'), {
      expected,
    });
  if (answer.error || !isUsable(answer))
    return cantTell(verbatim(answer.error) ?? verbatim(answer.rcode), { expected });
  const records = answer.records.filter((r) => r.type === type);
  const values = records.map((r) => bareValue(type, r.value));
  const good = compares(test.is, fillNames(test.value ?? '', host), values);
  return overSite(
    context,
    (good ? passed : failed)(`${type} ${name}`, {
      expected: fillNames(expected, host),
      found: verbatim(values.join('; ').slice(0, 300) || undefined) ?? commonMessage('no-such-record'),
      raw: records.map((r) => `${r.name} ${r.ttl} IN ${r.type} ${r.value}`).join('\n') || undefined,
    }),
  );
}

/** An own check as a check like any other. */
export function ownCheck(own: OwnCheck): Check {
  const { id, section, title, severity, situations, test } = own;
  const facts = {
    id,
    section,
    title,
    fault: own.fault || `Not met: ${title}`,
    why: own.why || 'The agency asks this of its sites.',
    severity,
    situations,
    source: 'the agency’s own rule',
  };
  if (!test)
    return defineManualCheck({ ...facts, how: own.steps || title, attestedForDays: own.goodForDays });
  const onSite = test.look === 'record' || test.look === 'status';
  const expected = inWords(test);
  return {
    ...facts,
    scope: onSite || test.on === 'home' ? 'site' : 'page',
    needs: onSite ? {} : { pages: true },
    ...(test.look === 'record' ? { reads: ['dns'] } : {}),
    ...(test.look === 'status' ? { reads: ['http'] } : {}),
    messages: { expected },
    none: msg('no-page'),
    judge: (context) => {
      if (test.look === 'status') return judgeStatus(test, context);
      if (test.look === 'record') return judgeRecord(test, context);
      if (test.on !== 'home') return overPages(context, (page) => judgePage(test, page));
      const { home } = context.view;
      return home
        ? overSite(context, judgePage(test, home))
        : cantTell(commonMessage('home-not-read'), { expected });
    },
    recipe: () => ({ steps: own.steps || `Change the site so that ${expected}.` }),
  };
}
