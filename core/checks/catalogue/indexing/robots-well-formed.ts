import { quantity } from '#core/text/quantity';
import { where, type Check } from '#core/checks/kit/check';
import { failed, inapplicable, overPlaces, passed } from '#core/checks/kit/judgement';

/** What crawlers have to read at least (RFC 9309 2.5). */
const LIMIT = 500 * 1024;

export const robotsWellFormed: Check = {
  id: 'indexing.robots-well-formed',
  section: 'indexing',
  title: 'robots.txt is read as it is meant',
  severity: 'minor',
  situations: where('L'),
  scope: 'line',
  why: 'A rule before any group, or with a slip of the pen, is passed over in silence.',
  source: 'RFC 9309 2.2, 2.5',
  judge({ evidence }) {
    const { facts, bytes } = evidence.robots;
    if (!facts) return inapplicable('there is no robots.txt that can be read');
    const url = evidence.robots.chain.start;
    const places = facts.oddities.map((o) => failed(`line ${o.line}`, { found: o.reason, raw: o.raw }));
    if ((bytes ?? 0) > LIMIT)
      places.push(failed(url, { found: `${bytes} bytes: what comes after ${LIMIT} need not be read` }));
    return overPlaces(
      places.length ? places : [passed(url, { found: quantity(facts.groups.length, 'group') })],
      { expected: 'every rule in a group, every field known', unit: ['line', 'lines'] },
    );
  },
  recipe: (_, finding) => ({
    steps: 'Mend these lines; a group begins with User-agent.',
    paste: [
      {
        label: 'As it stands',
        text: finding.places
          .filter((p) => p.outcome === 'failed')
          .map((p) => `${p.place}: ${p.raw ?? ''}`)
          .join('\n'),
      },
    ],
  }),
};
