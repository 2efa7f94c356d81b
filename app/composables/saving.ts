/**
 * A form over a document that others may save too: whether it was changed, from which version it came, and joining
 * what it meets when it is saved.
 */
import type { Overtaken } from '#core/compare/joining';
import { ApiError } from './api';

interface Saving<D extends object, O extends { version: number }> {
  /** All that can be changed, as a text that differs whenever something was. */
  state: () => string;
  /** @param from the version that the change was made on */
  save: (document: D, from: number) => Promise<O>;
  /** The name of a field, by its path. */
  label: (path: string) => string;
  /** Shows a document in the form. */
  fill: (document: D) => void;
  /** A kept document as the form would write it, so that only what people changed differs. */
  asForm: (document: D) => D | Promise<D>;
  /** The version that is kept now, whoever saved it. */
  newest: () => { version: number; document: D } | null | undefined;
}

const isOvertaken = (data: unknown): data is Overtaken =>
  typeof data === 'object' && data !== null && 'now' in data && 'version' in data;

export function useSaving<D extends object, O extends { version: number }>({
  state,
  save,
  label,
  fill,
  asForm,
  newest,
}: Saving<D, O>) {
  const joining = useJoining();
  /** What is being changed: the version that was read; nothing before the first was. */
  const base = shallowRef<{ version: number; document: D } | undefined>();
  const clean = ref<string>();
  const changed = computed(() => clean.value !== undefined && state() !== clean.value);

  function begin(read: { version: number; document: D }): void {
    base.value = read;
    fill(read.document);
    clean.value = state();
  }

  /** @param sent the state that is being saved: what is typed meanwhile is a change of its own */
  async function saveJoined(mine: D, sent: string): Promise<O | undefined> {
    const { version = 0, document = {} as D } = base.value ?? {};
    try {
      const saved = await save(mine, version);
      base.value = { version: saved.version, document: mine };
      clean.value = sent;
      return saved;
    } catch (error) {
      const overtaken = error instanceof ApiError ? error.data : undefined;
      if (!isOvertaken(overtaken)) throw error;
      const now = overtaken.now as D;
      const joined = await joining.ask({
        base: await asForm(document),
        mine: await asForm(mine),
        overtaken: { ...overtaken, now: await asForm(now) },
        label,
      });
      if (!joined) return undefined;
      base.value = { version: overtaken.version, document: now };
      fill(joined as D);
      // somebody may have saved once more meanwhile
      return saveJoined(joined as D, state());
    }
  }
  const { run, busy, fault, reset } = useAction((mine: D) => saveJoined(mine, state()), { inPlace: true });

  // an untouched form follows what others save, a changed one is joined when it is saved
  watch(
    newest,
    (now) => {
      if (now && now.version !== base.value?.version && !changed.value) begin(now);
    },
    { immediate: true },
  );
  return {
    changed,
    /** Whether somebody saved while the form was being changed. */
    isOvertaken: computed(() => changed.value && (newest()?.version ?? 0) > (base.value?.version ?? 0)),
    begin,
    /** Shows what is kept, and what was changed is gone. */
    undo(): void {
      const now = newest();
      if (now) begin(now);
      reset();
    },
    /** What was changed is not to be saved: the screen is left. */
    forget(): void {
      clean.value = undefined;
    },
    /** @returns undefined where it failed, or somebody would rather go on editing */
    run,
    busy,
    fault,
  };
}
