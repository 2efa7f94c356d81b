import { quantity } from '#core/text/quantity';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, inapplicable, overPlaces, passed } from '#core/checks/kit/judgement';

/** What crawlers have to read at least (RFC 9309 2.5). */
const LIMIT = 500 * 1024;

export const robotsWellFormed = defineCheck({
  id: 'indexing.robots-well-formed',
  title: 'robots.txt is well-formed',
  severity: 'minor',
  situations: ['live'],
  scope: 'line',
  reads: ['files'],
  why: 'A rule before any group, or with a slip of the pen, is passed over in silence.',
  source: 'RFC 9309 2.2, 2.5',
  messages: { expected: 'every rule in a group, every field known' },
  judge(context) {
    const { evidence } = context;
    const { facts, bytes } = evidence.robots;
    if (!facts) return inapplicable('there is no robots.txt that can be read');
    const url = evidence.robots.chain.start;
    const places = facts.oddities.map((o) => failed(`line ${o.line}`, { found: o.reason, raw: o.raw }));
    if ((bytes ?? 0) > LIMIT)
      places.push(failed(url, { found: `${bytes} bytes: what comes after ${LIMIT} need not be read` }));
    return overPlaces(
      context,
      places.length ? places : [passed(url, { found: quantity(facts.groups.length, 'group') })],
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
