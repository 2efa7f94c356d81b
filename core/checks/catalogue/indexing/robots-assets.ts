import { hostOf } from '#core/extract/address';
import { mayFetch } from '#core/extract/robots';
import { FINGERPRINT } from '#core/checks/kit/fingerprint';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, inapplicable, overPlaces, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('indexing.robots-assets', {
  'nothing-forbidden': 'there is no robots.txt that forbids anything',
  'nothing-loaded': 'the pages load no script or style of their own',
  disallowed: 'disallowed',
});

const FINGERPRINTED = new RegExp(String.raw`(?<=[._-])${FINGERPRINT}(?=\.\w+$)`);

/** The path of a file, with a star for its fingerprint (RFC 9309 2.2.3). */
const anyBuild = (path: string): string => path.replace(FINGERPRINTED, '*');

export const robotsAssets = defineCheck({
  id: 'indexing.robots-assets',
  title: 'robots.txt allows scripts and styles',
  fault: 'robots.txt disallows scripts or styles',
  severity: 'minor',
  situations: ['live'],
  scope: 'asset',
  facts: ['assets', 'robots'],
  reads: ['files'],
  needs: { pages: true },
  why: 'Search engines that may not fetch them judge the page without its layout.',
  source: 'common practice',
  messages: { expected: 'allowed for everyone' },
  judge(context) {
    const { evidence, view } = context;
    const { facts } = evidence.robots;
    if (!facts) return inapplicable(msg('nothing-forbidden'));
    // robots.txt speaks for its own host alone, wherever it redirects to (RFC 9309 2.3, 2.3.1.2)
    const host = hostOf(evidence.robots.chain.start);
    const files = evidence.assets.filter(
      (a) => (a.roles.includes('script') || a.roles.includes('style')) && hostOf(a.url) === host,
    );
    if (!files.length && view.pages.length) return inapplicable(msg('nothing-loaded'));
    return overPlaces(
      context,
      files.map((a) => {
        const { allowed, rule } = mayFetch(facts, '*', a.url);
        return allowed ? passed(a.url) : failed(a.url, { found: msg('disallowed'), raw: rule?.raw });
      }),
    );
  },
  recipe: (_, finding) => ({
    steps:
      'Put these lines into the group of the rule that shuts the files; they hold for the next build too.',
    paste: [
      {
        label: 'robots.txt',
        text: [
          ...new Set(failedPlaces(finding).map((p) => `Allow: ${anyBuild(new URL(p.place).pathname)}`)),
        ].join('\n'),
      },
    ],
  }),
});
