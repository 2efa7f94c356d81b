import { lastAnswer, type HostEvidence } from '#core/facts/evidence';
import type { PlaceResult } from '#core/facts/finding';
import { serverPage } from '#core/checks/view/page-marks';
import type { SiteView } from '#core/checks/view/site-view';
import { redirectFault, restsOn } from '#core/checks/kit/chains';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPlaces, passed, unaskedHosts, unsure } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { restsOnCheck, commonMessage } from '#core/text/common-messages';

const msg = defineMessages('domain.connected', {
  'still-parked': 'still parked (“{parked}”)',
  'server-default-page': 'the web server’s default page (“{mark}”): no site is set up there',
  'name-unknown-to-host': 'records arrive, the host does not know the name (“{unknown}”)',
});

const PARKED = msg('still-parked').code;

/** A host that shows nothing of who knows whom. */
function silenceOf(h: HostEvidence, view: SiteView): PlaceResult | undefined {
  const landing = h.landing;
  const astray = redirectFault(h.https) ?? redirectFault(h.http);
  if (!landing && astray) return unsure(h.host, restsOnCheck('domain.preferred-host', verbatim(astray)));
  const refused = view.refusedAt(h);
  if (refused && refused !== 'credentials') {
    return unsure(
      h.host,
      commonMessage('server-refused', {
        what: refused,
        status: lastAnswer(h.https)?.status ?? lastAnswer(h.http)?.status,
      }),
    );
  }
  if (!landing) return unsure(h.host, restsOn(h.https.error ?? h.http.error, view, commonMessage('no-page')));
  return undefined;
}

/** A host by the page that its own address leads to. */
function judgeLanding(h: HostEvidence, view: SiteView): PlaceResult {
  const landing = h.landing!;
  const parked = view.markOn(view.landing(h), 'parking');
  if (parked)
    return failed(h.host, { found: msg('still-parked', { parked }), raw: landing.facts.text.slice(0, 300) });
  const unknown = view.markOn(view.landing(h), 'unknownName');
  if (unknown)
    return failed(h.host, {
      found: msg('name-unknown-to-host', { unknown }),
      raw: landing.facts.text.slice(0, 300),
    });
  const byServer = serverPage(landing);
  if (byServer)
    return failed(h.host, {
      found: msg('server-default-page', { mark: byServer }),
      raw: landing.facts.text.slice(0, 300),
    });
  return passed(h.host, {
    found: verbatim(landing.facts.titles[0]?.text) ?? commonMessage('status', { status: landing.status }),
  });
}

export const connected = defineCheck({
  id: 'domain.connected',
  title: 'Domain is connected at the registrar and the host',
  fault: 'A host shows a parking, unknown-name or default page',
  severity: 'blocker',
  situations: ['holding', 'live'],
  scope: 'host',
  reads: ['dns', 'http', 'pages'],
  why: 'Both ends must be told: the domain where the host is, and the host which domain is its own. With one end missing visitors meet a parking or “unknown site” page.',
  source: 'common practice',
  messages: { expected: 'the site, no parking, unknown-name or default page' },
  judge(context) {
    const { view } = context;
    return overPlaces(context, [
      ...view.hosts.map((h) => silenceOf(h, view) ?? judgeLanding(h, view)),
      ...unaskedHosts(view),
    ]);
  },
  recipe: ({ profile }, finding) => ({
    steps: finding.places.some((p) => p.code === PARKED)
      ? 'The records still lead to the registrar. Set those of the host at the operator of the name servers.'
      : `Add the domain in the host’s settings${profile.name ? ` (${profile.name})` : ''}, with and without www, and wait until it shows as connected.`,
    paste: [
      {
        label: 'Names to add',
        text: failedPlaces(finding)
          .map((p) => p.place)
          .join('\n'),
      },
    ],
  }),
});
