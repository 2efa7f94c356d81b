import { lastAnswer, type HostEvidence } from '#core/facts/evidence';
import type { PlaceResult } from '#core/facts/finding';
import type { SiteView } from '#core/checks/view/site-view';
import { redirectFault, restsOn } from '#core/checks/kit/chains';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPlaces, passed, unaskedHosts, unsure } from '#core/checks/kit/judgement';
import { sentences } from '#core/text/sentences';
import { seen } from '#core/facts/said';
import { restingOn, saysOfAll } from '#core/text/says';

const says = sentences('domain.connected', {
  'still-parked': 'still parked (“{parked}”)',
  'name-unknown-to-host': 'records arrive, the host does not know the name (“{unknown}”)',
});

const PARKED = says('still-parked').code;

/** A host that shows nothing of who knows whom. */
function silenceOf(h: HostEvidence, view: SiteView): PlaceResult | undefined {
  const landing = h.landing;
  const astray = redirectFault(h.https) ?? redirectFault(h.http);
  if (!landing && astray) return unsure(h.host, restingOn('domain.preferred-host', seen(astray)));
  const refused = view.refusedAt(h);
  if (refused && refused !== 'credentials') {
    return unsure(
      h.host,
      saysOfAll('server-refused', {
        what: refused,
        status: lastAnswer(h.https)?.status ?? lastAnswer(h.http)?.status,
      }),
    );
  }
  if (!landing) return unsure(h.host, restsOn(h.https.error ?? h.http.error, view, saysOfAll('no-page')));
  return undefined;
}

/** A host by the page that its own address leads to. */
function judgeLanding(h: HostEvidence, view: SiteView): PlaceResult {
  const landing = h.landing!;
  const parked = view.markOn(view.landing(h), 'parking');
  if (parked)
    return failed(h.host, { found: says('still-parked', { parked }), raw: landing.facts.text.slice(0, 300) });
  const unknown = view.markOn(view.landing(h), 'unknownName');
  if (unknown)
    return failed(h.host, {
      found: says('name-unknown-to-host', { unknown }),
      raw: landing.facts.text.slice(0, 300),
    });
  return passed(h.host, {
    found: seen(landing.facts.titles[0]?.text) ?? saysOfAll('status', { status: landing.status }),
  });
}

export const connected = defineCheck({
  id: 'domain.connected',
  title: 'Domain is connected at the registrar and the host',
  fault: 'A host shows a parking or unknown-name page',
  severity: 'blocker',
  situations: ['holding', 'live'],
  scope: 'host',
  reads: ['dns', 'http', 'pages'],
  why: 'Both ends must be told: the domain where the host is, and the host which domain is its own. With one end missing visitors meet a parking or “unknown site” page.',
  source: 'common practice',
  messages: { expected: 'the site, no parking or unknown-name page' },
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
