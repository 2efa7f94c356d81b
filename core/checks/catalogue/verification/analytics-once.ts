import type { ScriptTag } from '#core/extract/html';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPages } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('verification.analytics-once', {
  'loaded-twice': '{id} is loaded {loadsCount} times',
});

/** An inline script that puts another one into the page (common practice: what such snippets are made of). */
const INSERTS = /createElement\(\s*["']script|document\.write(?:ln)?\(|importScripts\(/;

/** Whether an inline script starts counting for an ID by itself: `("config", "G-1")`, `("create", "G-1")`. */
function startsCounting(text: string, id: string): boolean {
  const at = text.indexOf(id);
  return (
    at >= 0 && /\(\s*["'](?:config|create|init)["']\s*,\s*["']$/.test(text.slice(Math.max(0, at - 60), at))
  );
}

/**
 * The scripts of which each alone loads or starts the counter. One that is loaded from elsewhere and one inline
 * that starts it belong together, so the larger number of the two kinds counts.
 */
function loadsOf(scripts: readonly ScriptTag[], id: string): readonly ScriptTag[] {
  const loaders = scripts.filter((s) => s.src !== undefined || INSERTS.test(s.inline ?? ''));
  const starters = scripts.filter((s) => startsCounting(s.inline ?? '', id));
  return starters.length > loaders.length ? starters : loaders;
}

export const analyticsOnce = defineCheck({
  id: 'verification.analytics-once',
  title: 'Analytics loads once a page',
  fault: 'Analytics loads twice on a page',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { brief: ['analyticsIds'], pages: true },
  why: 'Loaded by the host’s setting and by the template too, every visit counts double.',
  source: 'common practice',
  messages: { expected: 'each ID loaded once', none: 'no page loads an analytics ID of the brief' },
  judge(context) {
    return overPages(context, (page) => {
      for (const id of context.brief.analyticsIds) {
        const loads = loadsOf(page.scriptsWith(id), id);
        if (loads.length > 1)
          return failed(page.url, {
            found: msg('loaded-twice', { id, loadsCount: loads.length }),
            raw: loads.map((s) => s.raw).join('\n'),
          });
      }
      return context.brief.analyticsIds.some((id) => page.scriptsWith(id).length) ? page.passed : null;
    });
  },
  recipe: (_, finding) => ({
    steps: 'Keep one of the two: mostly the host’s own setting, and take the script out of the template.',
    paste: [{ label: 'Take out one of', text: failedPlaces(finding)[0]?.raw ?? '' }],
  }),
});
