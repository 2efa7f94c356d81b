import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { answersFor, answerText, plainName } from '#core/checks/kit/dns-answers';

export const noDanglingAlias = defineCheck({
  id: 'domain.no-dangling-alias',
  title: 'No alias leads into nothing',
  severity: 'major',
  situations: ['staging', 'holding', 'former', 'live'],
  scope: 'record',
  needs: { records: true },
  why: 'Whoever takes the abandoned name at that host next is served under the client’s domain.',
  source: 'common practice',
  messages: { expected: 'an alias whose target has an address', unit: 'alias', none: 'no name is an alias' },
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
        if (answers.some((a) => a.records.some((r) => r.type === 'A' || r.type === 'AAAA'))) {
          const host = view.hostEvidence(name);
          return host && view.isAstray(host)
            ? unsure(place, 'rests on domain.connected: the host does not serve this name')
            : passed(place, { found: target });
        }
        if (!answers.length || answers.every((a) => a.rcode !== 'NXDOMAIN' && a.rcode !== 'NOERROR'))
          return unsure(place, `${target} could not be asked for`);
        const gone = answers.find((a) => a.rcode === 'NXDOMAIN');
        return failed(place, {
          found: `${target} ${gone ? 'does not exist' : 'has no address'}`,
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
