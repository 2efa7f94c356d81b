/** Whether and how a browser looks at pages, from the environment. */
import { checksOf } from '#core/checks/engine/checklist';
import { partsOf } from '#core/checks/engine/parts-of';
import type { Check } from '#core/checks/kit/check';
import type { Checklist } from '#core/facts/checklist';
import { USUAL_BROWSER, type BrowserSettings } from '#probe/rendering/browser';
import type { RenderOptions } from '#probe/rendering/render';
import { list, numberOf } from '#server/platform/network/network';
import type { Scope } from './scope';

const USUAL_PAGES = 8;
const MEGABYTE = 1024 * 1024;
const WHEN = ['always', 'asked', 'never'] as const;

/** @throws Error for a word that it does not know */
function whenToRender(): (typeof WHEN)[number] {
  const said = process.env.ARMBAND_RENDER?.trim() || 'always';
  const known = WHEN.find((word) => word === said);
  if (!known) throw new Error(`ARMBAND_RENDER must be ${WHEN.join(', ')}; it is “${said}”.`);
  return known;
}

const rests = (check: Check | undefined): boolean =>
  check !== undefined && partsOf(check).includes('rendered');

/** Whether a browser is to look: where the checklist has something to judge by it, and nobody said otherwise. */
function isWanted(checklist: Checklist, scope: Scope | null): boolean {
  const when = whenToRender();
  const checkOf = checksOf(checklist);
  if (when === 'never') return false;
  const asked = scope?.parts?.includes('rendered') || scope?.checks?.some((id) => rests(checkOf(id)));
  if (asked) return true;
  if (when === 'asked' || scope?.parts?.length) return false;
  return checklist.items.some((item) => item.on !== false && rests(checkOf(item.check)));
}

/** The browser itself, as the environment has it. @throws Error for what cannot be read */
export function browserSettings(): BrowserSettings {
  const { env } = process;
  return {
    path: env.ARMBAND_BROWSER || USUAL_BROWSER.path,
    sandbox: env.ARMBAND_BROWSER_SANDBOX !== 'off',
    memoryBytes: numberOf('ARMBAND_BROWSER_MEMORY', USUAL_BROWSER.memoryBytes / MEGABYTE) * MEGABYTE,
    keys: list(env.ARMBAND_BROWSER_KEYS),
  };
}

/**
 * ARMBAND_RENDER (always, asked, never), _RENDER_PAGES (beside the home page and the required ones), _BROWSER (its
 * path), _BROWSER_SANDBOX=off, _BROWSER_MEMORY (MB), _BROWSER_KEYS (comma list of keys it trusts beside its own
 * store). @returns undefined where no browser is to look
 * @throws Error for what cannot be read
 */
export function renderSettings(
  checklist: Checklist,
  scope: Scope | null,
): Omit<RenderOptions, 'keepPicture'> | undefined {
  if (!isWanted(checklist, scope)) return undefined;
  return {
    browser: browserSettings(),
    pages: numberOf('ARMBAND_RENDER_PAGES', USUAL_PAGES),
  };
}
