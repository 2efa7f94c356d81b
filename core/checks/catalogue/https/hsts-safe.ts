import { finalStatus, headerValues } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { failed, inapplicable, overPlaces, passed, unsure, untested } from '#core/checks/kit/judgement';
import { headerRecipe } from '#core/recipes/web-server';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('https.hsts-safe', {
  'no-host-claims-subdomains': 'no host claims its subdomains',
  'subdomains-unknown': 'the brief does not say which subdomains there are',
  'answers-over-https': 'answers over https',
});

export const hstsSafe = defineCheck({
  id: 'https.hsts-safe',
  title: 'HSTS includeSubDomains breaks no subdomain',
  fault: 'HSTS includeSubDomains breaks a subdomain',
  severity: 'major',
  situations: ['live'],
  scope: 'host',
  facts: ['subdomains'],
  reads: ['http'],
  why: 'includeSubDomains makes every subdomain without https unreachable, for as long as max-age says.',
  source: 'RFC 6797 6.1.2 (from memory); common practice',
  messages: { unit: 'subdomain' },
  judge(context) {
    const { view, brief, evidence } = context;
    const set = view.hosts.flatMap((h) =>
      h.https.hops
        .slice(0, 1)
        .map((x) => ({ host: h.host, value: headerValues(x, 'strict-transport-security')[0] })),
    );
    const wide = set.filter((s) => s.value && /(?:^|;)\s*includeSubDomains\s*(?:;|$)/i.test(s.value));
    if (!wide.length) return inapplicable(msg('no-host-claims-subdomains'));
    // a host further down is claimed by each of those above it
    const claimOn = (name: string) => wide.find((w) => name === w.host || name.endsWith(`.${w.host}`));
    const known = (brief.knownSubdomains ?? []).flatMap((host) => {
      const claim = claimOn(host);
      return claim ? [{ host, raw: `${claim.host}: Strict-Transport-Security: ${claim.value}` }] : [];
    });
    if (!known.length)
      return brief.notWanted?.knownSubdomains
        ? inapplicable(commonMessage('not-wanted', { reason: brief.notWanted.knownSubdomains }))
        : untested(msg('subdomains-unknown'), 'knownSubdomains');
    return overPlaces(
      context,
      known.map(({ host, raw }) => {
        const chain = evidence.subdomains.find((s) => s.host === host)?.chain;
        if (!chain) return unsure(host, commonMessage('not-asked'));
        if (finalStatus(chain) !== undefined || chain.hops[0]?.status !== undefined)
          return passed(host, { found: msg('answers-over-https') });
        return chain.error?.code === 'timeout'
          ? unsure(host, verbatim(chain.error.message), { raw })
          : failed(host, { found: verbatim(chain.error?.message) ?? commonMessage('no-answer'), raw });
      }),
      { expected: `https on every known subdomain of ${wide.map((w) => w.host).join(' and ')}` },
    );
  },
  recipe: () => ({
    steps:
      'Leave includeSubDomains away until each of these subdomains has a certificate, and send the header anew: browsers forget the wider claim with the next visit.',
    paste: headerRecipe('Strict-Transport-Security', 'max-age=31536000'),
  }),
});
