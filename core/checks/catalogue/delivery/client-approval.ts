import { changesSince, contentOf, type ContentChange } from '#core/approval/content';
import type { PlaceResult } from '#core/facts/finding';
import { defineCheck } from '#core/checks/kit/check';
import {
  failed,
  failedPlaces,
  inapplicable,
  overPlaces,
  passed,
  unsure,
  untested,
} from '#core/checks/kit/judgement';
import { SiteView } from '#core/checks/view/site-view';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('delivery.client-approval', {
  'changed-since-yes': '{what} changed since the yes',
  'not-compared': '{what}: {why}',
  'launched-unasked': 'it is launched, and nobody was asked for a yes',
  'no-yes-yet': 'no contact has said yes yet',
  'yes-to-another-environment': 'the yes is to what stands on {environment}',
});

const placeOf = ({ url, what, isSure, why, before, after }: ContentChange): PlaceResult =>
  isSure
    ? failed(url, {
        found: msg('changed-since-yes', { what }),
        ...(before === undefined ? {} : { expected: before }),
        ...(after === undefined ? {} : { raw: after }),
      })
    : unsure(url, msg('not-compared', { what, why }));

export const clientApproval = defineCheck({
  id: 'delivery.client-approval',
  title: 'Client has approved this content',
  fault: 'Content changed since the client’s approval',
  severity: 'blocker',
  situations: ['staging', 'live'],
  scope: 'site',
  needs: { pages: true },
  why: 'A launch without a written yes is an argument later, and a yes is to what was shown and to nothing else.',
  source: 'common practice',
  attestedForDays: 30,
  messages: {
    unit: 'page',
    expected: ({ approval }) =>
      approval
        ? `what ${approval.by} said yes to on ${approval.at.slice(0, 10)} (${approval.environment})`
        : 'a contact’s yes to this content',
  },
  judge(context) {
    const { approval, approved, view, brief, profile, launched } = context;
    if (!approval || !approved) {
      // a site that went live before anybody could be asked is not held for it
      return view.evidence.target.kind === 'live' && launched
        ? inapplicable(msg('launched-unasked'))
        : untested(msg('no-yes-yet'));
    }
    const isLive = view.evidence.target.kind === 'live';
    if (!approval.isHere && !isLive && !approval.isLive)
      return inapplicable(msg('yes-to-another-environment', { environment: approval.environment }));
    const other = new SiteView(approved, brief, profile, approval.isLive ? 'live' : 'staging');
    const hosts = new Set([...view.siteHosts, ...other.siteHosts]);
    const now = contentOf(view, hosts);
    const changes = changesSince(contentOf(other, hosts), now, !approval.isHere);
    const changed = new Set(changes.map((c) => c.url));
    const same = [...now.pages.values()].filter(({ url }) => !changed.has(url)).map(({ url }) => passed(url));
    return overPlaces(context, [...changes.map(placeOf), ...same]);
  },
  recipe: (_, finding) => ({
    steps:
      'Show the client what changed: publish a new edition of the report, and ask for a new yes. Or put back what was approved.',
    paste: [
      {
        label: 'What changed since the yes',
        text: failedPlaces(finding, 50)
          .map(({ place, found }) => `${place}: ${found}`)
          .join('\n'),
      },
    ],
  }),
});
