import { rangeOf } from '#core/facts/address-ranges';
import type { ExpectedRecord } from '#core/facts/brief';
import type { DnsAnswer } from '#core/facts/evidence';
import type { PlaceResult } from '#core/facts/finding';
import { defineCheck, type CheckContext } from '#core/checks/kit/check';
import { failed, failedPlaces, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { answerText, answersFor, bestAnswers, sameValue, zoneLine } from '#core/checks/kit/dns-answers';

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

function judgeRecord(record: ExpectedRecord, context: CheckContext): PlaceResult[] {
  const label = `${record.type} ${record.name}`;
  const expected = record.value;
  const answers = bestAnswers(context.evidence, record.name, record.type);
  if (!answers.length) return [unsure(label, 'the record was not asked for', { expected })];
  return answers.map((a) => {
    const place = `${label} at ${a.serverName ?? a.server}`;
    const raw = answerText(a);
    if (a.rcode !== 'NOERROR' && a.rcode !== 'NXDOMAIN')
      return unsure(place, `no usable answer: ${a.rcode === 'NONE' ? (a.error ?? 'silence') : a.rcode}`, {
        expected,
        raw,
      });
    const found = a.records.filter((r) => r.type === record.type);
    if (found.some((r) => sameValue(record.type, r.value, record.value)))
      return passed(place, { expected, found: record.value, raw });
    const range =
      record.type === 'A' || record.type === 'AAAA'
        ? rangeOf(found[0]?.value ?? '', context.profile.addressRanges)
        : undefined;
    if (range && found.every((r) => rangeOf(r.value, context.profile.addressRanges)))
      return passed(place, {
        expected,
        found: `${found.map((r) => r.value).join(', ')}, of ${context.profile.name || 'the host'}’s ${range}`,
        raw,
      });
    const flat = found.length ? undefined : flattened(record, context);
    if (flat)
      return passed(place, { expected, found: `the addresses of ${record.value}`, raw: answerText(flat) });
    return failed(place, {
      expected,
      found:
        found.map((r) => r.value).join(', ') ||
        (a.rcode === 'NXDOMAIN' ? 'the name does not exist' : 'no such record'),
      raw,
      ...(found[0]
        ? {
            take: {
              field: 'records',
              how: 'swap',
              value: { value: found[0].value },
              instead: { name: record.name, type: record.type, value: record.value },
            } as const,
          }
        : {}),
    });
  });
}

export const recordsMatch = defineCheck({
  id: 'domain.records-match',
  title: 'The records are those the host asked for',
  severity: 'blocker',
  situations: ['holding', 'live'],
  scope: 'record',
  needs: { records: true, brief: ['records'] },
  exempt: ({ brief }) =>
    brief.reachedBy === 'forwarding' ? 'the brief says the site is reached by forwarding' : undefined,
  why: 'One wrong digit sends visitors elsewhere, and one stale name server sends some of them.',
  source: 'RFC 1034; RFC 1035',
  messages: { expected: 'every record of the brief, at every name server' },
  judge(context) {
    return overPlaces(
      context,
      context.brief.records.flatMap((r) => judgeRecord(r, context)),
    );
  },
  recipe({ brief }, finding) {
    const bad = new Set(failedPlaces(finding).map((p) => p.place.split(' at ')[0]));
    const lines = (brief.records ?? []).filter((r) => bad.has(`${r.type} ${r.name}`));
    return {
      steps:
        'Set these records at the operator of the name servers, and take away others of the same name and type.',
      paste: [{ label: 'Zone file', text: lines.map(zoneLine).join('\n') }],
    };
  },
});
