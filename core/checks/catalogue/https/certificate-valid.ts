import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overHosts, passed } from '#core/checks/kit/judgement';
import { certificateLine } from './certificate-line';

/** What the validator's codes mean (OpenSSL X509_V_ERR_*). */
const WORDS: Record<string, string> = {
  CERT_HAS_EXPIRED: 'expired',
  CERT_NOT_YET_VALID: 'not valid yet',
  DEPTH_ZERO_SELF_SIGNED_CERT: 'self-signed',
  SELF_SIGNED_CERT_IN_CHAIN: 'its root is not trusted',
  UNABLE_TO_VERIFY_LEAF_SIGNATURE: 'its issuer is not known',
  UNABLE_TO_GET_ISSUER_CERT_LOCALLY: 'its issuer is not known',
  UNABLE_TO_GET_ISSUER_CERT: 'its issuer is not known',
};

export const certificateValid = defineCheck({
  id: 'https.certificate-valid',
  title: 'The certificate is trusted and in date',
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
        return failed(host, { found: `expired on ${leaf.notAfter.slice(0, 10)}`, raw });
      if (at.getTime() < Date.parse(leaf.notBefore))
        return failed(host, { found: `not valid before ${leaf.notBefore.slice(0, 10)}`, raw });
      // judged by the dates above, so that stored evidence can be judged at another time
      const dated = tls.trustError === 'CERT_HAS_EXPIRED' || tls.trustError === 'CERT_NOT_YET_VALID';
      if (
        tls.trusted ||
        tls.completedChain ||
        (dated && tls.chain.length === 1 && leaf.subject !== leaf.issuer)
      )
        return passed(host, { found: `trusted, until ${leaf.notAfter.slice(0, 10)}`, raw });
      return failed(host, {
        found: WORDS[tls.trustError ?? ''] ?? `not trusted (${tls.trustError ?? 'unknown reason'})`,
        raw,
      });
    });
  },
  recipe: (_, finding) => ({
    steps: `Have the host issue a new certificate for ${failedPlaces(finding)
      .map((p) => p.place)
      .join(
        ', ',
      )}, and look why the automatic renewal did not run: mostly a record that no longer points at the host, or a CAA record that keeps its issuer out.`,
  }),
});
