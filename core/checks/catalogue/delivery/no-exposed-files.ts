import { finalStatus } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('delivery.no-exposed-files', {
  'served-with-content': 'served, with its content',
});

/** Lines of settings, and nothing else: comments aside. */
function areSettings(text: string): boolean {
  const lines = text.split(/\r?\n/).filter((line) => line.trim() && !/^\s*#/.test(line));
  // the last line is cut where the sample ends
  const whole = lines.length > 1 ? lines.slice(0, -1) : lines;
  return (
    whole.length > 0 &&
    whole.every((line) => /^\s*(?:export\s+)?[A-Za-z_][A-Za-z0-9_.]*\s*=/.test(line)) &&
    /^\s*(?:export\s+)?[A-Z][A-Z0-9_]{2,}\s*=/m.test(text)
  );
}

/** A statement with what it is about, or the head that a dumping program writes. */
const SQL =
  /^(?:CREATE TABLE|INSERT INTO|DROP TABLE|COPY)\s+(?:IF (?:NOT )?EXISTS\s+)?[`"[]?[\w.]+[`"\]]?\s*(?:\(|;|VALUES\b|FROM stdin)|^-- (?:MySQL|MariaDB|PostgreSQL|SQLite|[\w ]{2,30}SQL) (?:database )?dump\b|^\/\*!\d{5} SET |^PRAGMA foreign_keys\s*=/im;
/** A time at the start of a line, or the words of a fault. */
const LOG =
  /^\[?\d{4}-\d\d-\d\d[T ]\d\d:\d\d:\d\d|^\[\w{3} \w{3} [ \d]\d \d\d:\d\d:\d\d|^\[\d{2}-\w{3}-\d{4} \d\d:\d\d:\d\d|^(?:\[[^\]]+\] )?PHP (?:Fatal error|Parse error|Warning|Notice|Deprecated):/m;
/** A name and a hash, which is blanked in the evidence but for its kind. */
const HASH = /^[^\s:<>{}()]{1,64}:(?:\$(?:apr1|2[abxy]|[156])\$|\{SHA\}|\(crypt\))/m;
const PHP_SOURCE = /^\s*<\?php\b/;
const PHP_INFO = /<title>(?:PHP [\w.+~-]+ - )?phpinfo\(\)<\/title>|<h1 class="p">PHP Version \d/i;

const by =
  (telltale: RegExp) =>
  (text: string): boolean =>
    telltale.test(text);
/** Content of its own, and no page: a server that answers every address has none but that. */
const plain =
  (tells: (text: string) => boolean) =>
  (text: string): boolean =>
    !/^\s*<(?!\?php)/.test(text) && tells(text);

/**
 * What gives away the content that was looked for: what ordinary HTML, CSS or prose cannot be (common practice:
 * the form of these files, most from memory).
 */
const TELLTALES: Record<string, (text: string) => boolean> = {
  '/.git/HEAD': plain(by(/^(?:ref: refs\/\S+|[0-9a-f]{40}(?:[0-9a-f]{24})?)\s*$/)),
  '/.git/config': plain(by(/^\[core\]\s*\n\s*\w+\s*=/m)),
  '/.svn/wc.db': by(/^SQLite format 3\0/),
  '/.hg/requires': plain(
    by(/^(?:revlogv1|revlogv2|dotencode|fncache|generaldelta|sparserevlog|share-safe)\s*$/m),
  ),
  '/.env': plain(areSettings),
  '/.env.bak': plain(areSettings),
  '/.htpasswd': plain(by(HASH)),
  '/backup.sql': plain(by(SQL)),
  '/dump.sql': plain(by(SQL)),
  '/backup.zip': by(/^PK\x03\x04/),
  '/config.php.bak': by(PHP_SOURCE),
  '/wp-config.php.bak': by(PHP_SOURCE),
  '/phpinfo.php': by(PHP_INFO),
  '/info.php': by(PHP_INFO),
  '/server-status': by(/<h1>(?:Apache Server Status|Server-Status)\b|<dt>Server Version: /i),
  '/error_log': plain(by(LOG)),
  '/debug.log': plain(by(LOG)),
  '/.DS_Store': by(/^\x00\x00\x00\x01Bud1/),
};

export const noExposedFiles = defineCheck({
  id: 'delivery.no-exposed-files',
  title: 'No private files are served',
  fault: 'A private file is served',
  severity: 'blocker',
  situations: ['live'],
  scope: 'path',
  facts: ['paths'],
  reads: ['http'],
  needs: { pages: true },
  why: 'Version control, environment files and backups hold passwords; they are looked for within hours.',
  source: 'common practice',
  messages: { expected: 'none of them answers with its content' },
  judge(context) {
    const { evidence } = context;
    // what a made-up address gets too is no file
    const isAnything = (sample: string | undefined): boolean =>
      Boolean(sample) && sample === evidence.notFoundSample;
    const places = evidence.paths
      .filter((p) => p.path in TELLTALES)
      .map((p) => {
        const status = finalStatus(p.chain);
        if (status === undefined)
          return unsure(p.path, verbatim(p.chain.error?.message) ?? commonMessage('no-answer'));
        const isServed = (status === 200 || status === 206) && !isAnything(p.sample);
        if (isServed && TELLTALES[p.path]!(p.sample ?? ''))
          return failed(p.path, { found: msg('served-with-content'), raw: p.sample });
        return passed(p.path, { found: commonMessage('status', { status }) });
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
