import type { PlaceResult } from '#core/facts/finding';
import { defineCheck, type CheckContext } from '#core/checks/kit/check';
import { failed, failedPlaces, overPlaces, passed, unaskedHosts, unsure } from '#core/checks/kit/judgement';
import { answerText, answersFor } from '#core/checks/kit/dns-answers';
import { hourLine } from '#core/formats/zone-file/write';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { restsOnCheck, commonMessage } from '#core/text/common-messages';

const msg = defineMessages('domain.resolves', {
  'resolver-says': 'the resolver says {rcode}',
  'resolver-says-instead': 'the resolver says {said}',
  'no-resolver-asked': 'no resolver was asked',
  nxdomain: 'the name does not exist (NXDOMAIN)',
  'name-has-no-address': 'the name has no address',
});

function judgeName(host: string, { evidence, view, situation }: CheckContext): PlaceResult {
  const answers = ['A', 'AAAA']
    .flatMap((t) => answersFor(evidence, host, t))
    .filter((a) => a.role === 'resolver');
  const addresses = answers.flatMap((a) =>
    a.records.filter((r) => r.type === 'A' || r.type === 'AAAA').map((r) => r.value),
  );
  const raw = answers.map(answerText).join('\n');
  if (addresses.length) return passed(host, { found: verbatim([...new Set(addresses)].join(', ')), raw });
  const broken = answers.find((a) => a.rcode !== 'NOERROR' && a.rcode !== 'NXDOMAIN');
  if (broken && view.isBogus && situation !== 'staging' && situation !== 'former')
    return unsure(host, restsOnCheck('domain.signed', msg('resolver-says', { rcode: broken.rcode })), {
      raw,
    });
  if (!answers.length || broken)
    return unsure(
      host,
      broken
        ? msg('resolver-says-instead', {
            said: broken.rcode === 'NONE' ? (broken.error ?? commonMessage('nothing')) : broken.rcode,
          })
        : msg('no-resolver-asked'),
      { raw },
    );
  return failed(host, {
    found: answers.some((a) => a.rcode === 'NXDOMAIN') ? msg('nxdomain') : msg('name-has-no-address'),
    raw,
  });
}

export const resolves = defineCheck({
  id: 'domain.resolves',
  title: 'Every host has an A or AAAA record',
  fault: 'A host has no A or AAAA record',
  severity: 'blocker',
  situations: ['staging', 'holding', 'former', 'live'],
  scope: 'host',
  reads: ['dns'],
  why: 'Without an address there is nothing to connect to.',
  source: 'RFC 1034',
  messages: { expected: 'an A or AAAA record', none: 'the address is a number, not a name' },
  judge: (context) =>
    overPlaces(context, [
      ...[...context.view.siteHosts].filter((h) => !isAddress(h)).map((h) => judgeName(h, context)),
      ...unaskedHosts(context.view),
    ]),
  recipe({ brief }, finding) {
    const names = failedPlaces(finding).map((p) => p.place);
    const lines = (brief.records ?? []).filter((r) =>
      names.includes(r.name.replace(/\.$/, '').toLowerCase()),
    );
    return {
      steps:
        'Set the record at the operator of the name servers; it can take as long as the old TTL until everybody sees it.',
      paste: lines.length ? [{ label: 'Zone file', text: lines.map(hourLine).join('\n') }] : undefined,
    };
  },
});

function isAddress(host: string): boolean {
  return /^[\d.]+$/.test(host) || host.startsWith('[');
}
