import { foldSpace } from '#core/text/fold';
import type { AddressEvidence } from '#core/facts/evidence';
import type { PlaceResult } from '#core/facts/finding';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPlaces, passed, unsure } from '#core/checks/kit/judgement';

/** What a visitor gets there, in one word that can be compared. */
const faceOf = (a: AddressEvidence): string => `${a.exchange.status} ${foldSpace(a.title ?? '')}`;

export const everyAddress = defineCheck({
  id: 'domain.every-address',
  title: 'Every address serves the same site',
  severity: 'blocker',
  situations: ['holding', 'live'],
  scope: 'record',
  needs: { records: true },

  why: 'Browsers choose among the addresses; one that is wrong is wrong for some visitors, always.',
  source: 'common practice; RFC 8305',
  messages: { expected: 'the same page and a valid certificate at each address', unit: 'address' },
  judge(context) {
    const { view } = context;
    const places = view.hosts.flatMap((h): PlaceResult[] => {
      const faces = h.addresses.filter((a) => a.exchange.status !== undefined).map(faceOf);
      // what most of them show is taken for the site; of two that differ, the one that the ordinary visit met
      const most = [...new Set(faces)].sort(
        (a, b) => faces.filter((f) => f === b).length - faces.filter((f) => f === a).length,
      )[0];
      const tie = most !== undefined && faces.filter((f) => f === most).length * 2 === faces.length;
      const used = h.https.hops[0]?.address;
      const met = h.addresses.find(
        (a) => used !== undefined && (used.startsWith(`${a.address}:`) || used.startsWith(`[${a.address}]:`)),
      );
      const good = tie && met ? faceOf(met) : most;
      return h.addresses.map((a) => {
        const place = `${a.family === 6 ? 'AAAA' : 'A'} ${h.host} ${a.address}`;
        const { error, status } = a.exchange;
        if (error?.code === 'no-address' || error?.code === 'forbidden-address')
          return unsure(
            place,
            a.family === 6 ? `IPv6 cannot be reached from here (${error.message})` : error.message,
          );
        if (status === undefined && h.addresses.every((b) => b.exchange.status === undefined))
          return unsure(place, `rests on https.answers: ${error?.message ?? 'no answer'}`);
        if (status === undefined)
          return error?.code === 'timeout'
            ? unsure(place, error.message)
            : failed(place, { found: error?.message ?? 'no answer' });
        if (faceOf(a) !== good)
          return failed(place, {
            found: `another site: ${status}${a.title ? ` “${a.title}”` : ''}`,
            expected: good,
          });
        // a certificate that is bad everywhere is certificate-valid's business
        if (a.tls && !a.tls.trusted && h.addresses.some((b) => b.tls?.trusted))
          return failed(place, {
            found: `a certificate that is not trusted (${a.tls.trustError ?? 'no handshake'})`,
          });
        return passed(place, { found: faceOf(a) });
      });
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
