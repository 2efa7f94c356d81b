import type { ExpectedRecord } from '#core/facts/brief';
import type { DnsRecord, Evidence } from '#core/facts/evidence';
import type { PlaceResult } from '#core/facts/finding';
import { isDmarc } from '#core/extract/dmarc';
import { isSpf } from '#core/extract/spf';
import { joinedText } from '#core/facts/dns-text';
import { defineCheck, type CheckContext } from '#core/checks/kit/check';
import { cantTell, failed, failedPlaces, inapplicable, overPlaces, passed } from '#core/checks/kit/judgement';
import { bestAnswers, exchangerOf, plainName, sameValue } from '#core/checks/kit/dns-answers';
import { hourLine } from '#core/formats/zone-file/write';
import { isMailUse, mailUse } from './mail-use';
import { changeAhead, type Change } from './change';
import { defineMessages } from '#core/text/messages';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('domain.mail-survives', {
  'not-among-briefs-records': 'not among the brief’s records',
  'moves-along': 'it rests on {name}, which moves to {value}',
  'in-brief': 'in the brief',
  'not-touched': 'not touched',
  'domain-has-no-mail': 'the domain has no mail',
  'nothing-changes': 'neither name servers nor address records will change',
});

/** The mail records that are served today: exchangers, SPF, DMARC, and the keys of the brief's selectors. */
function mailRecords(evidence: Evidence, zone: string, selectors: readonly string[]): DnsRecord[] {
  const served = (name: string, type: string): DnsRecord[] =>
    bestAnswers(evidence, name, type).flatMap((a) => a.records.filter((r) => r.type === type));
  return [
    ...served(zone, 'MX'),
    ...served(zone, 'TXT').filter((r) => isSpf(joinedText(r.value))),
    ...served(`_dmarc.${zone}`, 'TXT').filter((r) => isDmarc(joinedText(r.value))),
    ...selectors.flatMap((s) => ['TXT', 'CNAME'].flatMap((type) => served(`${s}._domainkey.${zone}`, type))),
  ];
}

/** The record about to move that an exchanger rests on, itself or through an alias. */
function movesUnder(r: DnsRecord, change: Change, evidence: Evidence): ExpectedRecord | undefined {
  if (r.type !== 'MX') return undefined;
  const exchanger = exchangerOf(r.value);
  const leadsTo = (name: string): boolean =>
    bestAnswers(evidence, exchanger, 'CNAME').some((a) => a.records.some((x) => plainName(x.value) === name));
  return (
    change.records.find((m) => plainName(m.name) === exchanger) ??
    change.records.find((m) => leadsTo(plainName(m.name)))
  );
}

const placeOf = (r: DnsRecord): string =>
  `${r.type} ${plainName(r.name)} ${r.type === 'MX' ? r.value : joinedText(r.value).slice(0, 40)}`;

function judgeRecord(r: DnsRecord, change: Change, { evidence, brief }: CheckContext): PlaceResult {
  const place = placeOf(r);
  const raw = hourLine(r);
  const isKept = (brief.records ?? []).some(
    (e) =>
      e.type === r.type && plainName(e.name) === plainName(r.name) && sameValue(r.type, e.value, r.value),
  );
  if (change.nameServers && !isKept) return failed(place, { found: msg('not-among-briefs-records'), raw });
  // an exchanger that rests on a record which moves takes its mail along
  const moving = movesUnder(r, change, evidence);
  return moving
    ? failed(place, {
        found: msg('moves-along', { name: plainName(moving.name), value: moving.value }),
        raw,
      })
    : passed(place, { found: change.nameServers ? msg('in-brief') : msg('not-touched'), raw });
}

export const mailSurvives = defineCheck({
  id: 'domain.mail-survives',
  title: 'Mail records survive the move',
  fault: 'A mail record is lost in the move',
  severity: 'blocker',
  situations: ['staging', 'holding', 'former'],
  scope: 'record',
  needs: { records: true },
  why: 'A move of name servers that forgets the mail records stops the client’s mail, and they notice before the agency does.',
  source: 'RFC 5321 5.1; common practice',
  messages: {
    expected: 'every mail record of today among the brief’s, none resting on a record that moves',
    unit: 'mail record',
    none: 'the domain has no mail records today',
  },
  judge(context) {
    const { evidence, brief } = context;
    const use = mailUse(context);
    if (!isMailUse(use)) return use;
    if (use.mail === 'none') return inapplicable(msg('domain-has-no-mail'));
    const { zone } = evidence.dns;
    if (!zone) return inapplicable(commonMessage('no-own-zone'));
    const change = changeAhead(evidence, brief);
    if (!change) return cantTell(commonMessage('no-server-answered'));
    if (!change.nameServers && !change.records.length) return inapplicable(msg('nothing-changes'));
    const today = mailRecords(evidence, zone, brief.dkimSelectors ?? []);
    const places = new Map(today.map((r) => [placeOf(r), r]));
    return overPlaces(
      context,
      [...places.values()].map((r) => judgeRecord(r, change, context)),
      { notes: use.notes },
    );
  },
  recipe: (_, finding) => ({
    steps:
      'Take these records into the brief and set them at the new operator before the name servers change. Where an exchanger rests on the web server’s name, give it a name of its own first.',
    paste: [
      {
        label: 'Zone file',
        text: failedPlaces(finding)
          .flatMap((p) => p.raw ?? [])
          .join('\n'),
      },
    ],
  }),
});
