import { finalStatus } from '#core/facts/evidence';
import type { PlaceResult } from '#core/facts/finding';
import { refuses } from '#core/checks/kit/chains';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, overSite, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage, restsOnCheck } from '#core/text/common-messages';

const msg = defineMessages('indexing.robots-answers', {
  'html-page': 'an HTML page',
  'any-address-answers': 'every address is answered with a page',
  'no-type': 'no type',
  ok: '200, {contentType}',
  error: '{message}, which closes the site to crawlers',
  'refused-429': 'the server refused the visitor (429)',
  'status-closes': 'status {status}, which closes the site to crawlers',
  'status-allows': 'status {status}: everything is allowed',
});

const IS_HTML = /^\s*(<!doctype|<html|<head|<body)/i;

/** A robots.txt that answered 200: it must be text, and its own. */
function judgeFile(place: string, text: string, contentType: string): PlaceResult {
  if (IS_HTML.test(text)) return failed(place, { found: msg('html-page'), raw: text.slice(0, 200) });
  const isPlain = /^text\/plain\b/i.test(contentType);
  return (isPlain ? passed : failed)(place, {
    found: msg('ok', { contentType: contentType || msg('no-type') }),
    raw: text.slice(0, 400),
  });
}

export const robotsAnswers = defineCheck({
  id: 'indexing.robots-answers',
  title: 'robots.txt answers 200 or 4xx as text',
  fault: 'robots.txt answers 5xx or is not text',
  severity: 'major',
  situations: ['live'],
  scope: 'site',
  facts: ['robots', 'notFound'],
  reads: ['files', 'http'],
  needs: { pages: true },
  why: 'A robots.txt that fails on the server’s side closes the whole site to crawlers.',
  source: 'RFC 9309 2.3.1',
  messages: { expected: '200 as text/plain, or a plain “not there”' },
  judge(context) {
    const { evidence } = context;
    const { chain, contentType = '', text = '' } = evidence.robots;
    const { expected } = context.words;
    const status = finalStatus(chain);
    const place = chain.start;
    if (status === undefined) {
      const { code, message } = chain.error ?? {};
      const why = verbatim(message) ?? commonMessage('no-answer');
      return code === 'forbidden-address' || code === 'stopped'
        ? cantTell(why, { expected })
        : overSite(context, failed(place, { found: msg('error', { message: why }) }));
    }
    if (status === 429) return cantTell(msg('refused-429'), { expected });
    if (status >= 500) return overSite(context, failed(place, { found: msg('status-closes', { status }) }));
    if (status >= 400)
      return overSite(context, passed(place, { found: msg('status-allows', { status }) }), {
        notes: refuses(status) ? [`crawlers are told ${status}, and take it as no rules`] : [],
      });
    if (status !== 200)
      return overSite(context, failed(place, { found: commonMessage('status', { status }) }));
    // a server that answers everything with a page has no robots.txt, which is no fault
    if (IS_HTML.test(text) && context.view.answersAnything)
      return cantTell(restsOnCheck('indexing.not-found-status', msg('any-address-answers')), { expected });
    return overSite(context, judgeFile(place, text, contentType));
  },
  recipe: ({ view }) => ({
    steps: 'Serve this file as text/plain at the root of the host.',
    paste: [
      {
        label: 'robots.txt',
        text: `User-agent: *\nDisallow:\n\nSitemap: https://${view.preferredHost}/sitemap.xml`,
      },
    ],
  }),
});
