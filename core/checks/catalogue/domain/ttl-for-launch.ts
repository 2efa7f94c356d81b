import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, inapplicable, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { bestAnswers, plainName } from '#core/checks/kit/dns-answers';
import { changeAhead } from './change';
import { defineMessages } from '#core/text/messages';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('domain.ttl-for-launch', {
  'launch-days-away': 'the launch is {left} days away',
  'has-no-record-yet': 'it has no record yet',
  ttl: '{ttl} s',
});

const DAY = 86_400_000;

export const ttlForLaunch = defineCheck({
  id: 'domain.ttl-for-launch',
  title: 'TTLs of records that will change are low',
  fault: 'TTL of a record that will change is too high',
  severity: 'minor',
  situations: ['staging', 'holding', 'former'],
  scope: 'record',
  needs: { records: true, brief: ['launchDate'] },
  why: 'A record kept for a day sends visitors to the old server for a day after the switch.',
  source: 'common practice',
  parameters: {
    days: {
      default: 3,
      min: 1,
      max: 30,
      unit: 'days',
      meaning: 'how long before the launch this is looked at',
    },
    seconds: { default: 3600, min: 60, max: 86_400, unit: 'seconds', meaning: 'longest time to live' },
  },
  messages: { none: 'no record will change' },
  judge(context) {
    const { evidence, brief, at, parameters } = context;
    const { days, seconds } = parameters;
    const left = (Date.parse(`${brief.launchDate.slice(0, 10)}T00:00:00Z`) - at.getTime()) / DAY;
    if (left > days) return inapplicable(msg('launch-days-away', { left: Math.ceil(left) }));
    const change = changeAhead(evidence, brief);
    if (!change) return cantTell(commonMessage('no-server-answered'));
    const names = [...new Set(change.records.map((r) => plainName(r.name)))];
    return overPlaces(
      context,
      names.flatMap((name) => {
        const served = ['A', 'AAAA', 'CNAME'].flatMap((type) =>
          bestAnswers(evidence, name, type).flatMap((a) =>
            a.records.filter((r) => plainName(r.name) === name && r.type === type),
          ),
        );
        if (!served.length) return [unsure(name, msg('has-no-record-yet'))];
        // each server counts its own down; the longest is what a resolver may have to wait
        const longest = served.reduce((a, b) => (b.ttl > a.ttl ? b : a));
        return [
          (longest.ttl <= seconds ? passed : failed)(`${longest.type} ${name}`, {
            found: msg('ttl', { ttl: longest.ttl }),
            raw: `${name}. ${longest.ttl} IN ${longest.type} ${longest.value}`,
          }),
        ];
      }),
      {
        expected: `a time to live of at most ${seconds} s`,
      },
    );
  },
  recipe: ({ parameters }, finding) => ({
    steps: 'Lower the time to live now, and raise it again a day after the switch.',
    paste: [
      {
        label: 'Zone file',
        text: finding.places
          .filter((p) => p.outcome === 'failed' && p.raw)
          .map((p) => p.raw!.replace(/ \d+ IN /, ` ${parameters.seconds} IN `))
          .join('\n'),
      },
    ],
  }),
});
