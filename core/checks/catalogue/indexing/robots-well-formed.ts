import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, inapplicable, overPlaces, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('indexing.robots-well-formed', {
  'too-long': '{bytes, number} bytes: what comes after {LIMIT} need not be read',
  groups: '{groupsCount, plural, one {{groupsCount} group} other {{groupsCount} groups}}',
});

/** What crawlers have to read at least (RFC 9309 2.5). */
const LIMIT = 500 * 1024;

export const robotsWellFormed = defineCheck({
  id: 'indexing.robots-well-formed',
  title: 'robots.txt is well-formed',
  fault: 'robots.txt is malformed',
  severity: 'minor',
  situations: ['live'],
  scope: 'line',
  facts: ['robots'],
  reads: ['files'],
  why: 'A rule before any group, or with a slip of the pen, is passed over in silence.',
  source: 'RFC 9309 2.2, 2.5',
  messages: { expected: 'every rule in a group, every field known' },
  judge(context) {
    const { evidence } = context;
    const { facts, bytes } = evidence.robots;
    if (!facts) return inapplicable(commonMessage('no-robots-file'));
    const url = evidence.robots.chain.start;
    const places = facts.oddities.map((o) =>
      failed(`line ${o.line}`, { found: verbatim(o.reason), raw: o.raw }),
    );
    if ((bytes ?? 0) > LIMIT) places.push(failed(url, { found: msg('too-long', { bytes, LIMIT }) }));
    return overPlaces(
      context,
      places.length ? places : [passed(url, { found: msg('groups', { groupsCount: facts.groups.length }) })],
    );
  },
  recipe: (_, finding) => ({
    steps: 'Correct these lines; a group begins with User-agent.',
    paste: [
      {
        label: 'As it stands',
        text: failedPlaces(finding)
          .map((p) => `${p.place}: ${p.raw ?? ''}`)
          .join('\n'),
      },
    ],
  }),
});
