import { hostOf } from '#core/extract/address';
import type { RenderedView, ScriptError } from '#core/facts/rendered';
import { defineCheck } from '#core/checks/kit/check';
import { failed, passed, unsure } from '#core/checks/kit/judgement';
import { missingScripts, overRendered } from '#core/checks/kit/rendered';
import { verbatim, type Message } from '#core/facts/message';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('delivery.script-errors', {
  'script-missing': 'may follow from a script of {missing}, which did not come for the audit',
  'visit-stopped': 'may follow from a counted visit that was stopped ({host})',
});

/** What a script says when something that another one should have made is not there. */
const LACKS = /is not defined|undefined|null|is not a function/i;

/** Why an error may come from how the audit looked, and not from the page; undefined where it does not. */
function doubtOf(error: ScriptError, view: RenderedView): Message | undefined {
  const missing = missingScripts(view);
  if (missing.length && LACKS.test(error.message)) return msg('script-missing', { missing: missing[0] });
  const host = error.at && hostOf(error.at);
  const isForeign = host !== undefined && host !== hostOf(view.url);
  return view.hits.length && isForeign ? msg('visit-stopped', { host }) : undefined;
}

const lineOf = ({ message, at }: ScriptError): string => (at ? `${message}\n  at ${at}` : message);

export const scriptErrors = defineCheck({
  id: 'delivery.script-errors',
  title: 'Scripts run without an uncaught error',
  fault: 'A script stops with an uncaught error',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  facts: ['rendered.errors', 'rendered.failed', 'rendered.hits'],
  needs: { pages: true, rendered: true },
  why: 'What comes after an uncaught error does not run: a menu that does not open, a form that is not sent.',
  source: 'common practice',
  messages: { expected: 'no uncaught script error' },
  judge(context) {
    return overRendered(context, (views, page) => {
      const errors = new Map<string, { error: ScriptError; doubt?: Message }>();
      for (const view of views)
        for (const error of view.errors) errors.set(lineOf(error), { error, doubt: doubtOf(error, view) });
      if (!errors.size) return passed(page.url);
      const all = [...errors.values()];
      const raw = [...errors.keys()].join('\n');
      const [sure] = all.filter((e) => e.doubt === undefined);
      if (!sure) return unsure(page.url, all[0]!.doubt!, { found: verbatim(all[0]!.error.message), raw });
      return failed(page.url, { found: verbatim(sure.error.message), raw });
    });
  },
  recipe: () => ({
    steps:
      'Open the page with the browser’s console, and follow the file and line above: mostly a script that is loaded too early, twice, or not at all. Take out what nobody uses.',
  }),
});
