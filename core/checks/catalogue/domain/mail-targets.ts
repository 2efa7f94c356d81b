import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, inapplicable, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import {
  answersFor,
  answerText,
  bestAnswers,
  exchangerOf,
  plainName,
  isUsable,
} from '#core/checks/kit/dns-answers';
import { isNullMx } from './mail-exchanger';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('domain.mail-targets', {
  'could-not-asked': 'it could not be asked for',
  'no-address': 'no address',
});

export const mailTargets = defineCheck({
  id: 'domain.mail-targets',
  title: 'MX targets have addresses and are no CNAME',
  fault: 'MX target has no address or is a CNAME',
  severity: 'minor',
  situations: ['live'],
  scope: 'record',
  needs: { records: true },
  why: 'Some senders refuse an exchanger that is an alias, and nobody finds one without an address.',
  source: 'RFC 2181 10.3',
  messages: { expected: 'an address, and no alias', unit: 'exchanger', none: 'the domain has no MX' },
  judge(context) {
    const { evidence } = context;
    const { zone } = evidence.dns;
    if (!zone) return inapplicable(commonMessage('no-own-zone'));
    const targets = [
      ...new Set(
        bestAnswers(evidence, zone, 'MX').flatMap((a) =>
          a.records.filter((r) => r.type === 'MX' && !isNullMx(r.value)).map((r) => exchangerOf(r.value)),
        ),
      ),
    ];
    return overPlaces(
      context,
      targets.map((target) => {
        const place = `MX ${target}`;
        const alias = answersFor(evidence, target, 'CNAME').find((a) =>
          a.records.some((r) => r.type === 'CNAME' && plainName(r.name) === target),
        );
        if (alias) return failed(place, { found: commonMessage('alias'), raw: answerText(alias) });
        const answers = [
          ...answersFor(evidence, target, 'A'),
          ...answersFor(evidence, target, 'AAAA'),
        ].filter(isUsable);
        if (!answers.length) return unsure(place, msg('could-not-asked'));
        return answers.some((a) => a.records.length > 0)
          ? passed(place, {
              found: verbatim(answers.flatMap((a) => a.records.map((r) => r.value)).join(', ')),
            })
          : failed(place, { found: msg('no-address'), raw: answerText(answers[0]!) });
      }),
    );
  },
  recipe: (_, finding) => ({
    steps: 'Point the MX at the name that the alias leads to, or give the exchanger an address.',
    paste: [
      {
        label: 'Exchangers',
        text: failedPlaces(finding)
          .map((p) => `${p.place.slice(3)}: ${p.found}`)
          .join('\n'),
      },
    ],
  }),
});
