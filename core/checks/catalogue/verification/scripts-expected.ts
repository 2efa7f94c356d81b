import { asciiHost } from '#core/extract/address';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPages } from '#core/checks/kit/judgement';
import { verbatim } from '#core/facts/message';

export const scriptsExpected = defineCheck({
  id: 'verification.scripts-expected',
  title: 'Third-party hosts are those the brief allows',
  fault: 'A third-party host is not in the brief',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  facts: ['resources'],
  needs: { brief: ['allowedScriptHosts'], pages: true },
  why: 'Each outside script can do everything the page can, and has to be in the privacy notice.',
  source: 'common practice',
  messages: { none: 'no page loads scripts or frames from outside' },
  judge(context) {
    const good = context.brief.allowedScriptHosts.map((h) => asciiHost(h.replace(/^\*\./, '')) ?? h);
    // the client's other subdomains are no third party
    const own = new Set([...context.view.siteHosts, ...(context.brief.knownSubdomains ?? [])]);
    return overPages(
      context,
      (page) => {
        const outside = page.loads.filter(
          (l) => (l.resource.kind === 'script' || l.resource.kind === 'frame') && !own.has(l.host),
        );
        if (!outside.length) return null;
        const strange = outside.filter((r) => !good.some((h) => r.host === h || r.host.endsWith(`.${h}`)));
        return strange.length
          ? failed(page.url, {
              found: verbatim([...new Set(strange.map((s) => s.host))].join(', ')),
              raw: strange[0]!.resource.raw,
              adopt: { field: 'allowedScriptHosts', how: 'add', value: strange[0]!.host },
            })
          : page.passed;
      },
      { expected: `only ${good.join(', ')}` },
    );
  },
  recipe: (_, finding) => ({
    steps:
      'Find out what brought it (plug-in, theme, embedded film); take it out, or add its host to the brief and the privacy notice.',
    paste: [
      {
        label: 'Hosts',
        text: [...new Set(failedPlaces(finding).map((p) => p.found))].join('\n'),
      },
    ],
  }),
});
