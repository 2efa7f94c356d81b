/** What to do about certificates: one recipe for each cause, wherever it is found. */
import type { Recipe } from '#core/checks/kit/check';

/** The server sends its own certificate without what links it to a root, or with an intermediate that lapsed. */
export const fullChain = (): Recipe => ({
  steps:
    'Install the full chain: the certificate followed by the issuer’s current intermediates, in one file. The certificate itself is good; no new one is needed.',
  paste: [
    { label: 'nginx', text: 'ssl_certificate /etc/ssl/fullchain.pem;' },
    { label: 'Apache', text: 'SSLCertificateFile /etc/ssl/fullchain.pem' },
  ],
});

/** It lapsed, or is trusted by nobody. */
export const newCertificate = (hosts: readonly string[]): Recipe => ({
  steps: `Have the host issue a new certificate for ${hosts.join(', ')}, and look why the automatic renewal did not run: mostly a record that no longer points at the host, or a CAA record that keeps its issuer out.`,
});
