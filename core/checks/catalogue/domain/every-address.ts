import { foldSpace } from '#core/text/fold';
import type { AddressEvidence, HostEvidence } from '#core/facts/evidence';
import { coversHost } from '#core/facts/certificate';
import type { PlaceResult } from '#core/facts/finding';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { restsOnCheck, commonMessage } from '#core/text/common-messages';

const msg = defineMessages('domain.every-address', {
  'ipv6-unreachable-from-here': 'IPv6 cannot be reached from here ({message})',
  'another-site': 'another site: {status}{title}',
  'certificate-not-trusted': 'a certificate that is not trusted ({trustError})',
  'certificate-other-names': 'a certificate for other names only ({names})',
});

/** What a visitor gets there, in one word that can be compared. */
const faceOf = (a: AddressEvidence): string => `${a.exchange.status} ${foldSpace(a.title ?? '')}`;

/**
 * The face that is taken for the site: what most addresses show; where two differ, what the ordinary visit
 * met.
 */
function siteFace({ addresses, https }: HostEvidence): string | undefined {
  const counts = new Map<string, number>();
  for (const a of addresses)
    if (a.exchange.status !== undefined) counts.set(faceOf(a), (counts.get(faceOf(a)) ?? 0) + 1);
  const [most] = [...counts].sort(([, a], [, b]) => b - a);
  if (!most) return undefined;
  const all = [...counts.values()].reduce((a, b) => a + b, 0);
  const used = https.hops[0]?.address;
  const met = addresses.find((a) => used?.startsWith(`${a.address}:`) || used?.startsWith(`[${a.address}]:`));
  return most[1] * 2 === all && met ? faceOf(met) : most[0];
}

/** An address that gave no answer. */
function judgeSilence(place: string, { family, exchange }: AddressEvidence, host: HostEvidence): PlaceResult {
  const { code, message } = exchange.error ?? {};
  const why = verbatim(message) ?? commonMessage('no-answer');
  if (code === 'no-address' || code === 'forbidden-address')
    return unsure(place, family === 6 ? msg('ipv6-unreachable-from-here', { message: why }) : why);
  if (host.addresses.every((b) => b.exchange.status === undefined))
    return unsure(place, restsOnCheck('https.answers', why));
  return code === 'timeout' ? unsure(place, why) : failed(place, { found: why });
}

/** A certificate that names the host at none of its addresses is certificate-names' business. */
const covers = (a: AddressEvidence, { host }: HostEvidence): boolean =>
  a.tls?.names !== undefined && coversHost(a.tls.names, host);

function judgeAddress(a: AddressEvidence, host: HostEvidence, good: string | undefined): PlaceResult {
  const place = `${a.family === 6 ? 'AAAA' : 'A'} ${host.host} ${a.address}`;
  const { status } = a.exchange;
  if (status === undefined) return judgeSilence(place, a, host);
  if (faceOf(a) !== good) {
    const title = a.title ? ` “${a.title}”` : '';
    return failed(place, { found: msg('another-site', { status, title }), expected: good });
  }
  // it answered once, and broke off the handshake of another time
  if (a.tls?.error) return unsure(place, verbatim(a.tls.error.message));
  // a certificate that is bad everywhere is certificate-valid's business
  if (a.tls && !a.tls.trusted && host.addresses.some((b) => b.tls?.trusted))
    return failed(place, {
      found: msg('certificate-not-trusted', {
        trustError: a.tls.trustError ?? commonMessage('no-handshake'),
      }),
    });
  if (a.tls?.names.length && !covers(a, host) && host.addresses.some((b) => covers(b, host)))
    return failed(place, {
      found: msg('certificate-other-names', { names: a.tls.names.slice(0, 6).join(', ') }),
    });
  return passed(place, { found: verbatim(faceOf(a)) });
}

export const everyAddress = defineCheck({
  id: 'domain.every-address',
  title: 'Every A and AAAA address serves the site',
  fault: 'An A or AAAA address does not serve the site',
  severity: 'blocker',
  situations: ['holding', 'live'],
  scope: 'record',
  facts: ['addresses'],
  reads: ['http'],
  needs: { records: true },
  why: 'Browsers choose among the addresses; one that is wrong is wrong for some visitors, always.',
  source: 'common practice; RFC 8305',
  messages: { expected: 'the same page and a valid certificate at each address', unit: 'address' },
  judge(context) {
    const places = context.view.hosts.flatMap((host) => {
      const good = siteFace(host);
      return host.addresses.map((a) => judgeAddress(a, host, good));
    });
    return overPlaces(context, places);
  },
  recipe: (_, finding) => ({
    steps: 'Take the address away that serves something else, or let its server serve this site.',
    paste: [
      {
        label: 'Records',
        text: failedPlaces(finding)
          .map((p) => {
            const [type, host, address] = p.place.split(' ');
            return `${host}. IN ${type} ${address}`;
          })
          .join('\n'),
      },
    ],
  }),
});
