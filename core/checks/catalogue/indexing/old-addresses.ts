import { normaliseUrl } from '#core/extract/address';
import { lastAnswer } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPlaces, passed, unsure } from '#core/checks/kit/judgement';

export const oldAddresses = defineCheck({
  id: 'indexing.old-addresses',
  title: 'Addresses of the former site lead to the new ones',
  severity: 'major',
  situations: ['live'],
  scope: 'page',
  needs: { brief: ['formerAddresses'], pages: true },
  why: 'Every listing and link of years points there; without redirects the site begins anew.',
  source: 'RFC 9110 15.4.2; common practice',
  messages: { expected: 'a permanent redirect to the new address', unit: 'address' },
  judge(context) {
    const { brief, evidence, view } = context;
    const base = `https://${brief.preferredHost ?? view.preferredHost}/`;
    return overPlaces(
      context,
      brief.formerAddresses.map(({ from, to }) => {
        const chain = evidence.former.find((f) => f.from === from)?.chain;
        const goal = normaliseUrl(to, base);
        if (!chain) return unsure(from, 'it was not asked', { expected: to });
        const raw = chain.hops.map((x) => `${x.status ?? x.error?.message ?? ''} ${x.url}`).join('\n');
        if (chain.end === 'error')
          return chain.error?.code === 'timeout'
            ? unsure(from, chain.error.message, { expected: to, raw })
            : failed(from, { found: chain.error?.message ?? 'no answer', expected: to, raw });
        const last = lastAnswer(chain)!;
        const end = normaliseUrl(last.url);
        if (end !== goal)
          return failed(from, {
            found:
              end === base ? 'the home page' : (last.status ?? 0) >= 400 ? `status ${last.status}` : end!,
            expected: to,
            raw,
            ...(last.status === 200 && end !== base
              ? {
                  take: {
                    field: 'formerAddresses',
                    how: 'swap',
                    value: { from, to: end! },
                    instead: { from },
                  } as const,
                }
              : {}),
          });
        if (last.status !== 200)
          return failed(from, { found: `${to} answers ${last.status}`, expected: to, raw });
        const temporary = chain.hops.slice(0, -1).find((x) => x.status !== 301 && x.status !== 308);
        return temporary
          ? failed(from, { found: `status ${temporary.status}, not permanent`, expected: to, raw })
          : passed(from, { found: to, expected: to, raw });
      }),
    );
  },
  recipe: ({ brief, view }, finding) => {
    const path = (a: string) => {
      const u = normaliseUrl(a, `https://${brief.preferredHost ?? view.preferredHost}/`);
      return u ? new URL(u).pathname + new URL(u).search : a;
    };
    const bad = failedPlaces(finding, 100).map((p) => [path(p.place), path(p.expected ?? '/')] as const);
    return {
      steps: 'Set one permanent redirect for each.',
      paste: [
        { label: 'nginx', text: bad.map(([a, b]) => `location = ${a} { return 301 ${b}; }`).join('\n') },
        { label: 'Apache', text: bad.map(([a, b]) => `Redirect 301 ${a} ${b}`).join('\n') },
        { label: 'Caddy', text: bad.map(([a, b]) => `redir ${a} ${b} permanent`).join('\n') },
      ],
    };
  },
});
