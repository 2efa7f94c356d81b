/** What the keys of the ledger do. */
export interface LedgerKeys {
  move(by: number): void;
  openEvidence(): void;
  close(): void;
  walk(): void;
  act(what: LedgerAct): void;
}
export type LedgerAct = 'accept' | 'assign' | 'attest' | 'take';

const ACTS: Record<string, LedgerAct> = { a: 'accept', o: 'assign', t: 'attest', b: 'take' };

/** Whether a key was meant for a field, a dialog or the browser. */
const isElsewhere = (e: KeyboardEvent, el: HTMLElement): boolean =>
  e.ctrlKey ||
  e.metaKey ||
  e.altKey ||
  /^(INPUT|TEXTAREA|SELECT)$/.test(el.tagName) ||
  el.closest('.v-overlay-container') !== null;

const isButton = (el: HTMLElement): boolean => el.tagName === 'BUTTON' || el.tagName === 'A';

/** @returns what a key does; undefined where it does nothing */
function meaningOf(e: KeyboardEvent, el: HTMLElement, keys: LedgerKeys): (() => void) | undefined {
  const simple: Record<string, () => void> = {
    j: () => keys.move(1),
    ArrowDown: () => keys.move(1),
    k: () => keys.move(-1),
    ArrowUp: () => keys.move(-1),
    w: () => keys.walk(),
  };
  if (e.key === 'Enter') return isButton(el) ? undefined : () => keys.openEvidence();
  return simple[e.key];
}

/** Listens to the keys of the whole window while the ledger is shown. */
export function useLedgerKeys(keys: LedgerKeys): void {
  function listen(e: KeyboardEvent): void {
    const el = e.target as HTMLElement;
    if (isElsewhere(e, el)) return;
    const act = ACTS[e.key];
    if (e.key === 'Escape') keys.close();
    else if (act) keys.act(act);
    const meaning = meaningOf(e, el, keys);
    if (!meaning) return;
    e.preventDefault();
    meaning();
  }
  onMounted(() => window.addEventListener('keydown', listen));
  onBeforeUnmount(() => window.removeEventListener('keydown', listen));
}
