import { rangeOf } from '#core/facts/address-ranges';
import type { PlaceResult } from '#core/facts/finding';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import {
  answersFor,
  answerText,
  bestAnswers,
  plainName,
  sameValue,
  isUsable,
} from '#core/checks/kit/dns-answers';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('domain.no-stray-records', {
  'no-usable-answer': 'no usable answer',
});

const TYPES = ['A', 'AAAA', 'CNAME', 'HTTPS'];

export const noStrayRecords = defineCheck({
  id: 'domain.no-stray-records',
  title: 'No stray A, AAAA, CNAME or HTTPS records',
  fault: 'Stray A, AAAA, CNAME or HTTPS record',
  severity: 'major',
  situations: ['holding', 'live'],
  scope: 'record',
  facts: ['randomLabel'],
  needs: { records: true, brief: ['records'] },
  exempt: ({ brief }) =>
    brief.reachedBy === 'forwarding' ? commonMessage('reached-by-forwarding') : undefined,
  why: 'A stale AAAA or second A record sends some visitors to the old server, and nobody at the agency sees it.',
  source: 'common practice',
  messages: { expected: 'nothing but the records of the brief', none: 'none of these names has a record' },
  judge(context) {
    const { brief, evidence, profile } = context;
    const names = [
      ...new Set(brief.records.filter((r) => TYPES.includes(r.type)).map((r) => plainName(r.name))),
    ];
    const places: PlaceResult[] = names.flatMap((name) => {
      const expected = brief.records.filter((r) => plainName(r.name) === name);
      // an alias may be flattened into the addresses it leads to
      const alias = expected.find((r) => r.type === 'CNAME');
      const flat = new Set(
        alias
          ? ['A', 'AAAA'].flatMap((t) =>
              answersFor(evidence, alias.value, t).flatMap((a) => a.records.map((r) => r.value)),
            )
          : [],
      );
      return TYPES.flatMap((type) => {
        const answers = bestAnswers(evidence, name, type).filter(isUsable);
        if (!answers.length)
          return type === 'HTTPS' ? [] : [unsure(`${type} ${name}`, msg('no-usable-answer'))];
        // a wrong value in place of the expected one is charged by domain.records-match
        const due = expected.filter((e) => e.type === type);
        const strange = answers
          .filter(
            (a) => !due.length || a.records.some((r) => due.some((e) => sameValue(type, e.value, r.value))),
          )
          .flatMap((a) =>
            a.records
              .filter(
                (r) =>
                  r.type === type &&
                  plainName(r.name) === name &&
                  !expected.some((e) => e.type === type && sameValue(type, e.value, r.value)) &&
                  !flat.has(r.value) &&
                  !rangeOf(r.value, profile.addressRanges),
              )
              .map((r) => ({ a, r })),
          );
        if (strange.length)
          return [
            failed(`${type} ${name}`, {
              found: verbatim([...new Set(strange.map((s) => s.r.value))].join(', ')),
              raw: answerText(strange[0]!.a),
              adopt: { field: 'records', how: 'add', value: { name, type, value: strange[0]!.r.value } },
            }),
          ];
        return answers.some((a) => a.records.some((r) => r.type === type)) ? [passed(`${type} ${name}`)] : [];
      });
    });
    const wild =
      evidence.dns.randomLabel && evidence.dns.zone
        ? answersFor(evidence, `${evidence.dns.randomLabel}.${evidence.dns.zone}`, 'A').some(
            (a) => a.records.length > 0,
          )
        : false;
    return overPlaces(context, places, {
      notes: wild ? ['A made-up name answers as well: the zone has a wildcard.'] : [],
    });
  },
  recipe: (_, finding) => ({
    steps:
      'Take these records away at the operator of the name servers, unless they belong there: then add them to the brief.',
    paste: [
      {
        label: 'To be taken away',
        text: failedPlaces(finding)
          .map((p) => `${p.place.split(' ')[1]}. IN ${p.place.split(' ')[0]} ${p.found}`)
          .join('\n'),
      },
    ],
  }),
});
