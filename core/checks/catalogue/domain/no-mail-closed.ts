import type { Evidence } from '#core/facts/evidence';
import { parseDmarc } from '#core/extract/dmarc';
import { parseSpf } from '#core/extract/spf';
import type { PlaceResult } from '#core/facts/finding';
import { recordRecipe } from '#core/recipes/records';
import { defineCheck } from '#core/checks/kit/check';
import { failed, inapplicable, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { bestAnswers, isUsable } from '#core/checks/kit/dns-answers';
import { isNullMx } from './mail-exchanger';
import { isMailUse, mailUse } from './mail-use';
import { dmarcOf, spfOf, type Texts } from './mail-texts';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('domain.no-mail-closed', {
  'null-mx': '0 .',
  'no-mx': 'no MX',
  'no-text-record': 'no {kind} record',
  'domain-has-mail': 'the domain has mail',
});

function judgeMx(zone: string, evidence: Evidence): PlaceResult {
  const place = `MX ${zone}`;
  const answer = bestAnswers(evidence, zone, 'MX').find(isUsable);
  if (!answer) return unsure(place, commonMessage('no-answer'));
  const exchangers = answer.records.filter((r) => r.type === 'MX').map((r) => r.value);
  return exchangers.length === 1 && isNullMx(exchangers[0]!)
    ? passed(place, { found: msg('null-mx') })
    : failed(place, { found: verbatim(exchangers.join(', ') || undefined) ?? msg('no-mx'), expected: '0 .' });
}

/** A TXT record that must stand alone and say one thing. */
function judgeText(place: string, { texts, failed: silent }: Texts, wanted: WantedText): PlaceResult {
  if (silent) return unsure(place, silent);
  const good = texts.length === 1 && wanted.isClosed(texts[0]!);
  return (good ? passed : failed)(place, {
    found: verbatim(texts.join(', ') || undefined) ?? msg('no-text-record', { kind: wanted.kind }),
    expected: wanted.expected,
  });
}

interface WantedText {
  kind: string;
  expected: string;
  isClosed(text: string): boolean;
}
const CLOSED_SPF: WantedText = {
  kind: 'SPF',
  expected: 'v=spf1 -all',
  isClosed(text) {
    const { mechanisms } = parseSpf(text);
    return mechanisms.length === 1 && mechanisms[0]!.name === 'all' && mechanisms[0]!.qualifier === '-';
  },
};
const CLOSED_DMARC: WantedText = {
  kind: 'DMARC',
  expected: 'v=DMARC1; p=reject',
  isClosed(text) {
    const { errors, policy } = parseDmarc(text);
    return !errors.length && policy === 'reject';
  },
};

function closingRecipe(evidence: Evidence, zone: string) {
  const text = (name: string, value: string) => ({ name, type: 'TXT', value: `"${value}"` });
  const exchangers = bestAnswers(evidence, zone, 'MX').flatMap((a) =>
    a.records.filter((r) => r.type === 'MX' && !isNullMx(r.value)),
  );
  const wanted = [
    { name: zone, type: 'MX', value: '0 .' },
    text(zone, CLOSED_SPF.expected),
    text(`_dmarc.${zone}`, CLOSED_DMARC.expected),
  ];
  const others = [
    ...spfOf(evidence, zone).texts.map((t) => text(zone, t)),
    ...dmarcOf(evidence, zone).texts.map((t) => text(`_dmarc.${zone}`, t)),
  ].filter((r) => !wanted.some((w) => w.value === r.value));
  return recordRecipe([...exchangers, ...others], wanted);
}

const isMailHere = (address: string | undefined, zone: string | null): boolean =>
  zone !== null && address?.split('@').at(-1)?.toLowerCase() === zone;

export const noMailClosed = defineCheck({
  id: 'domain.no-mail-closed',
  title: 'Domain without mail says so (null MX, SPF, DMARC)',
  fault: 'Domain without mail does not say so (null MX, SPF, DMARC)',
  severity: 'minor',
  situations: ['live'],
  scope: 'record',
  needs: { records: true },
  why: 'Forgers like domains that nobody guards.',
  source: 'RFC 7505; RFC 7208; RFC 7489',
  messages: { expected: 'a null MX, SPF -all, DMARC reject' },
  judge(context) {
    const { evidence } = context;
    const use = mailUse(context);
    if (!isMailUse(use)) return use;
    if (use.mail !== 'none') return inapplicable(msg('domain-has-mail'));
    const { zone } = evidence.dns;
    if (!zone) return inapplicable(commonMessage('no-own-zone'));
    return overPlaces(
      context,
      [
        judgeMx(zone, evidence),
        judgeText(`SPF ${zone}`, spfOf(evidence, zone), CLOSED_SPF),
        judgeText(`DMARC ${zone}`, dmarcOf(evidence, zone), CLOSED_DMARC),
      ],
      { notes: use.notes },
    );
  },
  recipe: ({ evidence, brief }) => ({
    // a null MX would shut the address that the brief itself names
    ...(isMailHere(brief.contactEmail, evidence.dns.zone)
      ? {
          steps: `The brief says that the domain has no mail, and names ${brief.contactEmail} as its address. Correct one of the two first: these records would shut that address.`,
        }
      : {
          steps: 'Set these three records, and take away those that say otherwise.',
          paste: closingRecipe(evidence, evidence.dns.zone ?? ''),
        }),
  }),
});
