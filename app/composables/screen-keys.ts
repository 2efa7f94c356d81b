/** The one listener for keys that work anywhere on a screen, with the one rule for when they do not. */
import { useEventListener } from '@vueuse/core';

/** Keys by their names in lower case; `mod+k` is Ctrl or Cmd with K, and works in fields too. */
export type ScreenKeys = Record<string, () => void>;

/** Whether a key was meant for a field, a dialog or a menu. */
function isElsewhere(target: EventTarget | null): boolean {
  const el = target instanceof HTMLElement ? target : null;
  if (!el) return false;
  return /^(?:INPUT|TEXTAREA|SELECT)$/.test(el.tagName) || el.closest('.v-overlay-container') !== null;
}

/** Enter on a button or link is that button's. */
const isButton = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && /^(?:BUTTON|A)$/.test(target.tagName);

export function useScreenKeys(keys: ScreenKeys): void {
  useEventListener(window, 'keydown', (e: KeyboardEvent) => {
    const withMod = e.ctrlKey || e.metaKey;
    if (e.altKey || (!withMod && isElsewhere(e.target)) || (e.key === 'Enter' && isButton(e.target))) return;
    const act = keys[`${withMod ? 'mod+' : ''}${e.key.toLowerCase()}`];
    if (!act) return;
    e.preventDefault();
    act();
  });
}
