import { where, type Check } from '#core/checks/kit/check';
import { failed, inapplicable, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { answersFor, answerText, bestAnswers, plainName } from '#core/checks/kit/dns-answers';
import { isNullMx } from './mail-exchanger';

export const mailTargets: Check = {
  id: 'domain.mail-targets',
  section: 'domain',
  title: 'Mail exchangers have addresses of their own',
  severity: 'minor',
  situations: where('L'),
  scope: 'record',
  why: 'Some senders refuse an exchanger that is an alias, and nobody finds one without an address.',
  source: 'RFC 2181 10.3',
  judge({ evidence }) {
    const { zone } = evidence.dns;
    if (!zone) return inapplicable('the site has no zone of its own');
    const targets = [
      ...new Set(
        bestAnswers(evidence, zone, 'MX').flatMap((a) =>
          a.records
            .filter((r) => r.type === 'MX' && !isNullMx(r.value))
            .map((r) => plainName(r.value.split(/\s+/)[1] ?? '')),
        ),
      ),
    ];
    return overPlaces(
      targets.map((target) => {
        const place = `MX ${target}`;
        const alias = answersFor(evidence, target, 'CNAME').find((a) =>
          a.records.some((r) => r.type === 'CNAME' && plainName(r.name) === target),
        );
        if (alias) return failed(place, { found: 'an alias', raw: answerText(alias) });
        const answers = [
          ...answersFor(evidence, target, 'A'),
          ...answersFor(evidence, target, 'AAAA'),
        ].filter((a) => a.rcode === 'NOERROR' || a.rcode === 'NXDOMAIN');
        if (!answers.length) return unsure(place, 'it could not be asked for');
        return answers.some((a) => a.records.length > 0)
          ? passed(place, { found: answers.flatMap((a) => a.records.map((r) => r.value)).join(', ') })
          : failed(place, { found: 'no address', raw: answerText(answers[0]!) });
      }),
      {
        expected: 'an address, and no alias',
        unit: ['exchanger', 'exchangers'],
        none: 'the domain has no MX',
      },
    );
  },
  recipe: (_, finding) => ({
    steps: 'Point the MX at the name that the alias leads to, or give the exchanger an address.',
    paste: [
      {
        label: 'Exchangers',
        text: finding.places
          .filter((p) => p.outcome === 'failed')
          .map((p) => `${p.place.slice(3)}: ${p.found}`)
          .join('\n'),
      },
    ],
  }),
};
