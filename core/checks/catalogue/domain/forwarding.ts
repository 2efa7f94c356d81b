import { asciiHost } from '#core/extract/address';
import { lastAnswer } from '#core/facts/evidence';
import { chainText, temporaryRedirect } from '#core/checks/kit/chains';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPlaces, passed, unsure, untested } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('domain.forwarding', {
  'records-given': 'the brief gives records, so the site is reached by them',
  'reached-by-records': 'the brief says the site is reached by its records',
  'target-unknown': 'the brief does not say where it forwards to',
  'page-frames-another': 'a page that frames another',
  'without-https': '{url}, without https',
});

export const forwarding = defineCheck({
  id: 'domain.forwarding',
  title: 'Domain forwards permanently to the preferred host',
  fault: 'Domain does not forward permanently to the preferred host',
  severity: 'blocker',
  situations: ['live'],
  scope: 'host',
  reads: ['http'],
  needs: { brief: ['reachedBy'] },
  exempt({ brief }) {
    if (!brief.reachedBy && brief.records?.length) return msg('records-given');
    return brief.reachedBy === 'records' ? msg('reached-by-records') : undefined;
  },
  why: 'A framed or temporary forward keeps the site out of listings under its own name.',
  source: 'RFC 9110 15.4.2',
  messages: { none: 'there is no other host to forward' },
  judge(context) {
    const { brief, view } = context;
    const target = brief.forwardTo ?? brief.preferredHost;
    if (!target) return untested(msg('target-unknown'), 'forwardTo');
    const goal = asciiHost(target.replace(/^https?:\/\//, '').replace(/[/?#].*$/, '')) ?? target;
    const places = view.hosts
      .filter((h) => h.host !== goal)
      .map((h) => {
        const chain = h.https.end === 'answer' ? h.https : h.http;
        const last = lastAnswer(chain);
        const raw = chainText(chain);
        if (!last || chain.end === 'error')
          return unsure(h.host, verbatim(chain.error?.message) ?? commonMessage('no-answer'), { raw });
        const end = new URL(last.url);
        if (end.hostname === h.host) {
          const framed =
            h.landing?.facts.textLength === 0 || h.landing?.facts.marks.some((m) => /frame/i.test(m));
          return failed(h.host, {
            found: framed ? msg('page-frames-another') : commonMessage('stays-on', { host: h.host }),
            raw,
          });
        }
        if (end.hostname !== goal) return failed(h.host, { found: verbatim(last.url), raw });
        if (end.protocol !== 'https:')
          return failed(h.host, { found: msg('without-https', { url: last.url }), raw });
        const temporary = temporaryRedirect(chain);
        return temporary
          ? failed(h.host, { found: commonMessage('not-permanent', { status: temporary.status }), raw })
          : passed(h.host, { found: verbatim(last.url), raw });
      });
    return overPlaces(context, places, {
      expected: `a permanent redirect to https://${goal}/`,
    });
  },
  recipe: ({ brief }, finding) => ({
    steps: 'Set the forward at the registrar to permanent (301) and without masking or framing.',
    paste: [
      {
        label: 'Target',
        text: `https://${brief.preferredHost ?? ''}/  (301, ${failedPlaces(finding)
          .map((p) => p.place)
          .join(', ')})`,
      },
    ],
  }),
});
