import type { TlsEvidence } from '#core/facts/evidence';
import { fullChain, newCertificate } from '#core/recipes/certificates';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overHosts, passed } from '#core/checks/kit/judgement';
import { certificateLine, weakness } from './certificate-line';
import { defineMessages } from '#core/text/messages';
import type { Message } from '#core/facts/message';

const msg = defineMessages('https.certificate-valid', {
  'expired-on': 'expired on {notAfter}',
  'not-valid-before': 'not valid before {notBefore}',
  untrusted: '{why}',
  'unknown-issuer': 'its issuer is not known',
  expired: 'expired',
  'not-valid-yet': 'not valid yet',
  'self-signed': 'self-signed',
  'untrusted-root': 'its root is not trusted',
  'lapsed-above': 'its own dates are good, but {subject} above it lapsed on {day}',
  'early-above': 'its own dates are good, but {subject} above it begins on {day}',
  'dates-above': 'its own dates are good, but those of a certificate above it are not',
  weak: 'not trusted: {weak}',
  'unknown-reason': 'unknown reason',
  'not-trusted': 'not trusted ({trustError})',
  alone: '{words}: the server sent its own certificate alone, without the intermediates',
  'trusted-until': 'trusted, until {notAfter}',
});

const UNKNOWN_ISSUER = msg('unknown-issuer');

/** What the validator's codes mean (OpenSSL X509_V_ERR_*). */
const WORDS: Record<string, Message> = {
  CERT_HAS_EXPIRED: msg('expired'),
  CERT_NOT_YET_VALID: msg('not-valid-yet'),
  DEPTH_ZERO_SELF_SIGNED_CERT: msg('self-signed'),
  SELF_SIGNED_CERT_IN_CHAIN: msg('untrusted-root'),
  UNABLE_TO_VERIFY_LEAF_SIGNATURE: UNKNOWN_ISSUER,
  UNABLE_TO_GET_ISSUER_CERT_LOCALLY: UNKNOWN_ISSUER,
  UNABLE_TO_GET_ISSUER_CERT: UNKNOWN_ISSUER,
};

/** The certificate of a chain that makes it untrusted by its dates, in words. */
function lapsedAbove({ chain }: TlsEvidence, at: Date): Message | undefined {
  const above = chain.slice(1);
  const over = above.find((c) => at.getTime() > Date.parse(c.notAfter));
  if (over) return msg('lapsed-above', { subject: over.subject, day: over.notAfter.slice(0, 10) });
  const early = above.find((c) => at.getTime() < Date.parse(c.notBefore));
  return early && msg('early-above', { subject: early.subject, day: early.notBefore.slice(0, 10) });
}

function whyUntrusted(tls: TlsEvidence, at: Date): Message {
  const { trustError, chain } = tls;
  if (trustError === 'CERT_HAS_EXPIRED' || trustError === 'CERT_NOT_YET_VALID')
    return lapsedAbove(tls, at) ?? msg('dates-above');
  // what validators refuse and have no name for is mostly a weak key or signature
  const weak = WORDS[trustError ?? ''] === undefined && chain.map(weakness).find(Boolean);
  if (weak) return msg('weak', { weak });
  const words =
    WORDS[trustError ?? ''] ?? msg('not-trusted', { trustError: trustError ?? msg('unknown-reason') });
  return chain.length === 1 && words === UNKNOWN_ISSUER ? msg('alone', { words }) : words;
}

/** Whether the certificate itself is good and only what stands above it is missing or lapsed. */
function lacksChain(tls: TlsEvidence, at: Date): boolean {
  const [leaf, ...above] = tls.chain;
  if (!leaf || leaf.subject === leaf.issuer) return false;
  const now = at.getTime();
  if (now > Date.parse(leaf.notAfter) || now < Date.parse(leaf.notBefore)) return false;
  return above.length ? lapsedAbove(tls, at) !== undefined : WORDS[tls.trustError ?? ''] === UNKNOWN_ISSUER;
}

export const certificateValid = defineCheck({
  id: 'https.certificate-valid',
  title: 'Certificate is trusted and within its dates',
  fault: 'Certificate is not trusted or outside its dates',
  severity: 'blocker',
  situations: ['staging', 'holding', 'live'],
  scope: 'host',
  needs: { tls: true },
  why: 'Browsers put a full-page refusal in front of a site whose certificate they cannot trust.',
  source: 'RFC 5280',
  messages: { expected: 'a chain to a trusted root, within its dates' },
  judge(context) {
    const { at } = context;
    return overHosts(context, ({ host, tls }) => {
      const leaf = tls.chain[0]!;
      const raw = certificateLine(tls);
      if (at.getTime() > Date.parse(leaf.notAfter))
        return failed(host, {
          found: msg('expired-on', { notAfter: leaf.notAfter.slice(0, 10), issuer: leaf.issuer }),
          raw,
        });
      if (at.getTime() < Date.parse(leaf.notBefore))
        return failed(host, {
          found: msg('not-valid-before', { notBefore: leaf.notBefore.slice(0, 10) }),
          raw,
        });
      // judged by the dates above, so that stored evidence can be judged at another time
      const dated = tls.trustError === 'CERT_HAS_EXPIRED' || tls.trustError === 'CERT_NOT_YET_VALID';
      if (
        tls.trusted ||
        tls.completedChain ||
        (dated && tls.chain.length === 1 && leaf.subject !== leaf.issuer)
      )
        return passed(host, { found: msg('trusted-until', { notAfter: leaf.notAfter.slice(0, 10) }), raw });
      return failed(host, {
        found: msg('untrusted', { why: whyUntrusted(tls, at), issuer: leaf.issuer }),
        raw,
      });
    });
  },
  recipe: ({ view, at }, finding) => {
    const bad = new Set(failedPlaces(finding).map((p) => p.place));
    const hosts = view.hosts.filter((h) => bad.has(h.host));
    const unchained = hosts.length > 0 && hosts.every(({ tls }) => lacksChain(tls, at));
    return unchained ? fullChain() : newCertificate([...bad]);
  },
});
