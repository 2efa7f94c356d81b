import type { Evidence } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { answersFor, answerText, plainName } from '#core/checks/kit/dns-answers';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { restsOnCheck, andList } from '#core/text/common-messages';

const msg = defineMessages('domain.no-dangling-alias', {
  'target-has': '{target}, which has {held}',
  'host-does-not-serve-this': 'the host does not serve this name',
  'could-not-asked': '{target} could not be asked for',
  dangling: '{target} {isGone, select, yes {does not exist} other {has no address}}',
});

/** Types of records that resolvers find behind an alias. */
function heldBy(evidence: Evidence, name: string): string[] {
  const types = OTHERS.filter((type) =>
    answersFor(evidence, name, type).some((a) => a.records.some((r) => r.type === type)),
  );
  return [...types];
}
const OTHERS = ['TXT', 'MX', 'HTTPS', 'SRV', 'CAA'] as const;

export const noDanglingAlias = defineCheck({
  id: 'domain.no-dangling-alias',
  title: 'Every CNAME leads to a target that exists',
  fault: 'CNAME leads to a target that does not exist',
  severity: 'major',
  situations: ['staging', 'holding', 'former', 'live'],
  scope: 'record',
  reads: ['http'],
  needs: { records: true },
  why: 'Whoever takes the abandoned name at that host next is served under the client’s domain.',
  source: 'common practice',
  messages: {
    expected: 'an alias whose target has what is asked of it',
    unit: 'alias',
    none: 'no name is an alias',
  },
  judge(context) {
    const { evidence, view, brief } = context;
    const aliases = new Map<string, string>();
    for (const a of evidence.dns.answers)
      for (const r of a.records) if (r.type === 'CNAME') aliases.set(plainName(r.name), plainName(r.value));
    const own = new Set([
      ...evidence.target.hosts,
      ...(brief.knownSubdomains ?? []),
      ...(brief.records ?? []).map((r) => plainName(r.name)),
    ]);
    const places = [...aliases]
      .filter(
        ([name]) => own.has(name) || (evidence.dns.zone !== null && name.endsWith(`.${evidence.dns.zone}`)),
      )
      .map(([name, target]) => {
        const answers = [
          ...answersFor(evidence, target, 'A'),
          ...answersFor(evidence, target, 'AAAA'),
        ].filter((a) => a.role === 'resolver');
        const place = `CNAME ${name}`;
        // names of services (RFC 8552) hold other records than addresses
        const held = heldBy(evidence, name);
        if (name.startsWith('_') || name.includes('._'))
          if (held.length)
            return passed(place, { found: msg('target-has', { target, held: andList(held) }) });
        if (answers.some((a) => a.records.some((r) => r.type === 'A' || r.type === 'AAAA'))) {
          const host = view.hostEvidence(name);
          return host && view.showsForeignPage(host)
            ? unsure(place, restsOnCheck('domain.connected', msg('host-does-not-serve-this')))
            : passed(place, { found: verbatim(target) });
        }
        if (!answers.length || answers.every((a) => a.rcode !== 'NXDOMAIN' && a.rcode !== 'NOERROR'))
          return unsure(place, msg('could-not-asked', { target }));
        const gone = answers.find((a) => a.rcode === 'NXDOMAIN');
        if (!gone && held.length)
          return passed(place, { found: msg('target-has', { target, held: andList(held) }) });
        return failed(place, {
          found: msg('dangling', { target, isGone: gone ? 'yes' : 'no' }),
          raw: answerText(gone ?? answers[0]!),
        });
      });
    return overPlaces(context, places);
  },
  recipe: (_, finding) => ({
    steps: 'Take the alias away at the operator of the name servers, or claim its place at the host again.',
    paste: [
      {
        label: 'To be taken away',
        text: failedPlaces(finding)
          .map((p) => `${p.place.split(' ')[1]}. IN CNAME ${p.found?.split(' ')[0]}.`)
          .join('\n'),
      },
    ],
  }),
});
