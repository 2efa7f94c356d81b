import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, overSite, passed } from '#core/checks/kit/judgement';
import { mailDomain } from '#core/checks/view/mail-addresses';
import { answersFor, answerText, isUsable } from '#core/checks/kit/dns-answers';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { restsOnCheck } from '#core/text/common-messages';

const msg = defineMessages('domain.mail-exchanger', {
  'could-not-asked': '{domain} could not be asked for',
  'does-not-exist': '{domain} does not exist',
  'null-mx': 'a null MX: the domain says that it takes no mail',
  'no-mx':
    'no MX; mail goes to the domain’s own address, and whether that takes any cannot be seen from here',
  'address-only': 'an address only',
  'neither-mx-nor-address': 'neither MX nor address',
});

/** A null MX: the domain takes no mail (RFC 7505 3). */
export const isNullMx = (value: string): boolean => /^0\s+\.?$/.test(value.trim());

export const mailExchanger = defineCheck({
  id: 'domain.mail-exchanger',
  title: 'MX: the contact address can receive mail',
  fault: 'MX: the contact address cannot receive mail',
  severity: 'major',
  situations: ['former', 'holding', 'live'],
  scope: 'record',
  needs: { records: true, brief: ['contactEmail'] },
  why: 'Every message from the contact form ends here.',
  source: 'RFC 5321 5.1; RFC 7505',
  judge(context) {
    const { brief, evidence } = context;
    const domain = mailDomain(brief.contactEmail);
    const expected = `an MX of ${domain}`;
    const answers = answersFor(evidence, domain, 'MX').filter((a) => a.role === 'resolver');
    const answer = answers.find(isUsable);
    if (!answer)
      return cantTell(verbatim(answers[0]?.error) ?? msg('could-not-asked', { domain }), { expected });
    const raw = answerText(answer);
    if (answer.rcode === 'NXDOMAIN' && domain === evidence.dns.zone)
      return cantTell(restsOnCheck('domain.resolves', msg('does-not-exist', { domain })), { expected });
    if (answer.rcode === 'NXDOMAIN')
      return overSite(context, failed(domain, { found: msg('does-not-exist', { domain }), raw }), {
        expected,
      });
    const exchangers = answer.records.filter((r) => r.type === 'MX').map((r) => r.value);
    if (exchangers.some(isNullMx))
      return overSite(context, failed(domain, { found: msg('null-mx'), raw }), {
        expected,
      });
    if (exchangers.length)
      return overSite(context, passed(domain, { found: verbatim(exchangers.join(', ')), raw }), { expected });
    const address = ['A', 'AAAA'].some((t) =>
      answersFor(evidence, domain, t).some((a) => a.records.length > 0),
    );
    if (address) return cantTell(msg('no-mx'), { expected, found: msg('address-only') });
    return overSite(context, failed(domain, { found: msg('neither-mx-nor-address'), raw }), { expected });
  },
  recipe: ({ brief }) => ({
    steps: 'Set the MX records that the mail provider names.',
    paste: [
      { label: 'Zone file', text: `${brief.contactEmail?.split('@')[1] ?? 'the domain'}. 3600 IN MX 10 …` },
    ],
  }),
});
