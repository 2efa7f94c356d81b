import { finalStatus } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, overSite, passed } from '#core/checks/kit/judgement';

export const robotsAnswers = defineCheck({
  id: 'indexing.robots-answers',
  title: 'robots.txt answers as it should',
  severity: 'major',
  situations: ['live'],
  scope: 'site',
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
    if (status === undefined)
      return chain.error?.code === 'forbidden-address' || chain.error?.code === 'stopped'
        ? cantTell(chain.error.message, { expected })
        : overSite(
            context,
            failed(place, {
              found: `${chain.error?.message ?? 'no answer'}, which closes the site to crawlers`,
            }),
          );
    if (status === 429) return cantTell('the server refused the visitor (429)', { expected });
    if (status >= 500)
      return overSite(
        context,
        failed(place, { found: `status ${status}, which closes the site to crawlers` }),
      );
    if (status >= 400)
      return overSite(context, passed(place, { found: `status ${status}: everything is allowed` }), {
        notes:
          status === 401 || status === 403 ? [`crawlers are told ${status}, and take it as no rules`] : [],
      });
    if (status !== 200) return overSite(context, failed(place, { found: `status ${status}` }));
    const html = /^\s*(<!doctype|<html|<head|<body)/i.test(text);
    if (html) return overSite(context, failed(place, { found: 'an HTML page', raw: text.slice(0, 200) }));
    return overSite(
      context,
      (/^text\/plain\b/i.test(contentType) ? passed : failed)(place, {
        found: `200, ${contentType || 'no type'}`,
        raw: text.slice(0, 400),
      }),
    );
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
