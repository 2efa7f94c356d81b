import { rangeOf } from '#core/facts/address-ranges';
import type { ExpectedRecord } from '#core/facts/brief';
import { joinedText } from '#core/facts/dns-text';
import { recordRecipe } from '#core/recipes/records';
import type { DnsAnswer, DnsRecord, Evidence } from '#core/facts/evidence';
import type { HostProfile } from '#core/facts/host-profile';
import type { Adoption } from '#core/facts/adoption';
import type { PlaceResult } from '#core/facts/finding';
import { defineCheck, type CheckContext } from '#core/checks/kit/check';
import { failed, failedPlaces, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import {
  answerText,
  answersFor,
  bestAnswers,
  plainName,
  sameValue,
  isUsable,
} from '#core/checks/kit/dns-answers';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('domain.records-match', {
  'no-usable-answer': 'no usable answer: {reason}',
  'within-hosts-range': '{values}, of {name}’s {range}',
  addresses: 'the addresses of {value}',
  silence: 'silence',
  'name-does-not-exist': 'the name does not exist',
  'record-not-asked': 'the record was not asked for',
});

/**
 * Where a host flattens its alias into addresses, those count that the alias itself resolves to (common
 * practice).
 */
function flattened(record: ExpectedRecord, context: CheckContext): DnsAnswer | undefined {
  if (record.type !== 'CNAME') return undefined;
  const target = new Set(
    answersFor(context.evidence, record.value, 'A').flatMap((a) =>
      a.records.filter((r) => r.type === 'A').map((r) => r.value),
    ),
  );
  return answersFor(context.evidence, record.name, 'A').find(
    (a) => a.records.length > 0 && a.records.every((r) => r.type === 'A' && target.has(r.value)),
  );
}

/** The host's range that all of the found addresses are in. */
function commonRange(record: ExpectedRecord, found: readonly DnsRecord[], profile: HostProfile) {
  if (!found.length || (record.type !== 'A' && record.type !== 'AAAA')) return undefined;
  const ranges = found.map((r) => rangeOf(r.value, profile.addressRanges));
  return ranges.every(Boolean) ? ranges[0] : undefined;
}

/** What the brief would have to say for the found value to be right. */
const adoptFound = (record: ExpectedRecord, found: DnsRecord): Adoption => ({
  field: 'records',
  how: 'swap',
  value: { value: found.value },
  instead: { name: record.name, type: record.type, value: record.value },
});

function judgeAnswer(a: DnsAnswer, record: ExpectedRecord, context: CheckContext): PlaceResult {
  const { profile } = context;
  const expected = record.value;
  const place = `${labelOf(record)} at ${a.serverName ?? a.server}`;
  const raw = answerText(a);
  if (!isUsable(a)) {
    const reason = a.rcode === 'NONE' ? (a.error ?? msg('silence')) : a.rcode;
    return unsure(place, msg('no-usable-answer', { reason }), { expected, raw });
  }
  const found = a.records.filter((r) => r.type === record.type);
  if (found.some((r) => sameValue(record.type, r.value, record.value)))
    return passed(place, { expected, found: verbatim(record.value), raw });
  const values = found.map((r) => r.value).join(', ');
  const range = commonRange(record, found, profile);
  if (range)
    return passed(place, {
      expected,
      found: msg('within-hosts-range', { values, name: profile.name || commonMessage('the-host'), range }),
      raw,
    });
  const flat = found.length ? undefined : flattened(record, context);
  if (flat)
    return passed(place, {
      expected,
      found: msg('addresses', { value: record.value }),
      raw: answerText(flat),
    });
  const nothing = a.rcode === 'NXDOMAIN' ? msg('name-does-not-exist') : commonMessage('no-such-record');
  return failed(place, {
    expected,
    found: verbatim(values || undefined) ?? nothing,
    raw,
    ...(found[0] ? { adopt: adoptFound(record, found[0]) } : {}),
  });
}

/**
 * Records of today that cannot stand beside a wanted one: others of its name and type that the brief does not
 * want, an alias beside anything (RFC 1034 3.6.2), and of texts only those of the same purpose.
 */
function contradicting(
  wanted: ExpectedRecord,
  all: readonly ExpectedRecord[],
  evidence: Evidence,
): Pick<DnsRecord, 'name' | 'type' | 'value'>[] {
  const types = wanted.type === 'CNAME' ? ['CNAME', 'A', 'AAAA'] : [wanted.type, 'CNAME'];
  const name = plainName(wanted.name);
  return types.flatMap((type) =>
    answersFor(evidence, wanted.name, type)
      .filter((a) => a.role === 'authority')
      .flatMap((a) => a.records)
      .filter((r) => r.type === type && plainName(r.name) === name)
      .filter((r) => type !== 'TXT' || purposeOf(r.value) === purposeOf(wanted.value))
      .filter(
        (r) =>
          !all.some(
            (w) => w.type === type && plainName(w.name) === name && sameValue(type, w.value, r.value),
          ),
      ),
  );
}

/** What a text is for, by its beginning: "v=spf1", "tide-site-verification". */
const purposeOf = (value: string): string =>
  (/^v=\S+?(?=[\s;]|$)|^[^=\s]+/.exec(joinedText(value))?.[0] ?? '').toLowerCase();

const labelOf = (record: ExpectedRecord): string => `${record.type} ${record.name}`;

function judgeRecord(record: ExpectedRecord, context: CheckContext): PlaceResult[] {
  const answers = bestAnswers(context.evidence, record.name, record.type);
  if (!answers.length) return [unsure(labelOf(record), msg('record-not-asked'), { expected: record.value })];
  return answers.map((a) => judgeAnswer(a, record, context));
}

export const recordsMatch = defineCheck({
  id: 'domain.records-match',
  title: 'DNS records are those in the brief',
  fault: 'A DNS record differs from the brief',
  severity: 'blocker',
  situations: ['holding', 'live'],
  scope: 'record',
  needs: { records: true, brief: ['records'] },
  exempt: ({ brief }) =>
    brief.reachedBy === 'forwarding' ? commonMessage('reached-by-forwarding') : undefined,
  why: 'One wrong digit sends visitors elsewhere, and one stale name server sends some of them.',
  source: 'RFC 1034; RFC 1035',
  messages: { expected: 'every record of the brief, at every name server' },
  judge(context) {
    return overPlaces(
      context,
      context.brief.records.flatMap((r) => judgeRecord(r, context)),
    );
  },
  recipe({ brief, evidence }, finding) {
    const bad = new Set(failedPlaces(finding).map((p) => p.place.split(' at ')[0]));
    const lines = (brief.records ?? []).filter((r) => bad.has(labelOf(r)));
    return {
      steps:
        'Set these records at the operator of the name servers. What stands under “take away” contradicts them; other records stay.',
      paste: recordRecipe(
        lines.flatMap((r) => contradicting(r, brief.records ?? [], evidence)),
        lines,
      ),
    };
  },
});
