import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, inapplicable, overSite, passed } from '#core/checks/kit/judgement';
import { answersFor, answerText, plainName, isUsable } from '#core/checks/kit/dns-answers';
import { changeAhead } from './change';
import { defineMessages } from '#core/text/messages';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('domain.ds-fits', {
  'name-servers-will-not-change': 'the name servers will not change',
  'brief-names-no-other-name': 'the brief names no other name servers',
  'zone-above-not-asked-ds': 'the zone above was not asked for a DS',
  'no-ds': 'no DS',
  'new-servers-not-asked': 'there is a DS, and the new name servers could not be asked for the zone',
  ds: 'a DS',
  'no-dnskey': 'a DS, and {serverName} has no DNSKEY',
  signed: 'the new name servers sign the zone',
});

/** The DS records that the zone above has, from its own servers where they answered. */
export function delegationSigners(evidence: Parameters<typeof answersFor>[0]) {
  const answers = answersFor(evidence, evidence.dns.zone ?? '', 'DS').filter(isUsable);
  const parent = answers.filter((a) => a.role === 'parent');
  const used = parent.length ? parent : answers.filter((a) => a.role === 'resolver');
  return {
    known: used.length > 0,
    records: used.flatMap((a) => a.records.filter((r) => r.type === 'DS')),
    answers: used,
  };
}

export const dsFits = defineCheck({
  id: 'domain.ds-fits',
  title: 'DS fits the new name servers',
  fault: 'DS does not fit the new name servers',
  severity: 'blocker',
  situations: ['staging', 'holding', 'former'],
  scope: 'domain',
  reads: ['dns'],
  why: 'A DS that the new name servers cannot answer for switches the domain off for everyone whose resolver checks.',
  source: 'RFC 4035; RFC 6781 (from memory)',
  messages: { expected: 'no DS, or new name servers that sign the zone' },
  judge(context) {
    const { evidence, brief } = context;
    const { zone } = evidence.dns;
    if (!zone) return inapplicable(commonMessage('no-own-zone'));
    const change = changeAhead(evidence, brief);
    if (!change) return cantTell(commonMessage('no-server-answered'));
    if (!change.nameServers)
      return inapplicable(
        brief.nameServers?.length ? msg('name-servers-will-not-change') : msg('brief-names-no-other-name'),
      );
    const ds = delegationSigners(evidence);
    const { expected } = context.words;
    if (!ds.known) return cantTell(msg('zone-above-not-asked-ds'), { expected });
    if (!ds.records.length) return overSite(context, passed(zone, { found: msg('no-ds') }));
    const coming = evidence.dns.answers.filter(
      (a) => a.role === 'coming' && a.type === 'DNSKEY' && plainName(a.name) === zone,
    );
    const raw = ds.answers.map(answerText).join('\n');
    if (!coming.length || coming.every((a) => a.rcode === 'NONE'))
      return cantTell(msg('new-servers-not-asked'), {
        expected,
        found: msg('ds'),
      });
    const unsigned = coming.find((a) => !a.records.some((r) => r.type === 'DNSKEY'));
    return overSite(
      context,
      unsigned
        ? failed(zone, {
            found: msg('no-dnskey', { serverName: unsigned.serverName ?? unsigned.server }),
            raw,
          })
        : passed(zone, { found: msg('signed'), raw }),
    );
  },
  recipe: ({ evidence }) => ({
    steps: `Have the DS of ${evidence.dns.zone ?? 'the domain'} taken out at the registrar, wait until its time to live is over (mostly a day), change the name servers, and sign anew there.`,
  }),
});
