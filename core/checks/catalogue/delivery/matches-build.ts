import { compareBuild, type BuildFile } from '#core/compare/build';
import type { PlaceResult } from '#core/facts/finding';
import { defineCheck } from '#core/checks/kit/check';
import { failed, inapplicable, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('delivery.matches-build', {
  injected: 'the same text, with something put in{hasWhy, select, yes {: {why}} other {}}',
  bytes: 'other bytes',
  'other-bytes': '{all}',
  'no-build-uploaded': 'no build was uploaded',
});

/** What a file of the build comes to; nothing where it is none that is served, or was left unread. */
const JUDGED: Record<BuildFile['state'], (file: BuildFile) => PlaceResult[]> = {
  same: ({ path }) => [passed(path)],
  injected: ({ path, why }) => [
    passed(path, { found: msg('injected', { hasWhy: why ? 'yes' : 'no', why: why ? why : undefined }) }),
  ],
  differs: ({ path, differences = [] }) => [
    failed(path, {
      found: msg('other-bytes', {
        all: [msg('bytes'), ...differences.map((d) => d.what)],
      }),
    }),
  ],
  missing: ({ path, status }) => [failed(path, { found: commonMessage('status', { status }) })],
  unknown: ({ path, why }) => [unsure(path, verbatim(why) ?? commonMessage('no-answer'))],
  unread: () => [],
  'not served': () => [],
};

export const matchesBuild = defineCheck({
  id: 'delivery.matches-build',
  title: 'Served files are those of the build',
  fault: 'A served file differs from the build',
  severity: 'major',
  situations: ['live'],
  scope: 'file',
  needs: { pages: true },
  why: 'One file that did not go up, or came from an old cache, breaks what was tested.',
  source: 'common practice',
  messages: {
    expected: ({ build }) => `the bytes of ${build?.name}`,
    none: 'the build holds no file that is served',
  },
  judge(context) {
    const { evidence, view, build } = context;
    if (!build) return inapplicable(msg('no-build-uploaded'));
    const { files } = compareBuild(build, evidence, `https://${view.preferredHost}`);
    return overPlaces(
      context,
      files.flatMap((file) => JUDGED[file.state](file)),
    );
  },
  recipe: () => ({ steps: 'Upload these files again, then empty the caches of host and content network.' }),
});
