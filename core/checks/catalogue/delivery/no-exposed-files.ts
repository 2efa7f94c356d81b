import { finalStatus } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPlaces, passed, unsure } from '#core/checks/kit/judgement';

const SETTING = /^\s*(?:export\s+)?[A-Z][A-Z0-9_]{2,}\s*=/m;
const SQL = /^(--|\/\*|CREATE TABLE|INSERT INTO|DROP TABLE)/im;
const LOG = /^\[?\d{4}-\d\d-\d\d|^\[\w{3} \w{3} \d|^\[\d{2}-\w{3}-\d{4}|PHP (?:Fatal|Warning|Notice)/m;

/** What gives away the content that was looked for; a page that answers 200 to everything has none of it. */
export const TELLTALES: Record<string, RegExp> = {
  '/.git/HEAD': /^(ref: refs\/|[0-9a-f]{40}\s*$)/,
  '/.git/config': /^\s*\[core\]/m,
  '/.svn/wc.db': /^SQLite format 3/,
  '/.hg/requires': /^(?:[a-z0-9-]+\n)+$|^(?:revlogv1|dotencode|share-safe)/m,
  '/.env': SETTING,
  '/.env.bak': SETTING,
  '/.htpasswd': /^[^\s:<]{1,64}:…?/m,
  '/backup.sql': SQL,
  '/dump.sql': SQL,
  '/backup.zip': /^PK\x03\x04/,
  '/config.php.bak': /^\s*<\?php/,
  '/wp-config.php.bak': /^\s*<\?php/,
  '/phpinfo.php': /PHP Version/i,
  '/info.php': /PHP Version/i,
  '/server-status': /Server Version:|<title>[^<]*Status<\/title>/i,
  '/error_log': LOG,
  '/debug.log': LOG,
  '/.DS_Store': /^\x00\x00\x00\x01Bud1/,
};

export const noExposedFiles = defineCheck({
  id: 'delivery.no-exposed-files',
  title: 'No inner files are served',
  severity: 'blocker',
  situations: ['live'],
  scope: 'path',
  needs: { pages: true },
  why: 'Version control, environment files and backups hold passwords; they are looked for within hours.',
  source: 'common practice',
  messages: { expected: 'none of them answers with its content' },
  judge(context) {
    const { evidence } = context;
    const places = evidence.paths
      .filter((p) => p.path in TELLTALES)
      .map((p) => {
        const status = finalStatus(p.chain);
        if (status === undefined) return unsure(p.path, p.chain.error?.message ?? 'no answer');
        if ((status === 200 || status === 206) && TELLTALES[p.path]!.test(p.sample ?? ''))
          return failed(p.path, { found: 'served, with its content', raw: p.sample });
        return passed(p.path, { found: `status ${status}` });
      });
    return overPlaces(context, places);
  },
  recipe: () => ({
    steps: 'Take the file off the server, close hidden files, and change every password that stood in it.',
    paste: [
      { label: 'nginx', text: 'location ~ /\\.(?!well-known/) { return 404; }' },
      { label: 'Apache', text: 'RedirectMatch 404 "/\\.(?!well-known/)"' },
    ],
  }),
});
