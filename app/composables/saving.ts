/** Saving a document that others may save too: it says from which version it came, and joins what it met. */
import { ApiError } from './api';
import type { Overtaken } from '~/stores/joining';

interface Saving<D extends object, O> {
  /** @param from the version that the change was made on */
  save: (document: D, from: number) => Promise<O>;
  /** The name of a field, by its path. */
  label: (path: string) => string;
  /** Shows what was joined. */
  fill: (joined: D) => void;
}

const isOvertaken = (data: unknown): data is Overtaken =>
  typeof data === 'object' && data !== null && 'now' in data && 'version' in data;

export function useSaving<D extends object, O>({ save, label, fill }: Saving<D, O>) {
  const joining = useJoining();
  /** What is being changed: the version that was read. */
  const base = shallowRef<{ version: number; document: object }>({ version: 0, document: {} });

  async function saveJoined(mine: D): Promise<O | undefined> {
    try {
      return await save(mine, base.value.version);
    } catch (error) {
      const overtaken = error instanceof ApiError ? error.data : undefined;
      if (!isOvertaken(overtaken)) throw error;
      const joined = await joining.ask({ base: base.value.document, mine, overtaken, label });
      if (!joined) return undefined;
      base.value = { version: overtaken.version, document: overtaken.now };
      fill(joined as D);
      // somebody may have saved once more meanwhile
      return saveJoined(joined as D);
    }
  }
  const { run, busy, fault, reset } = useDoing(saveJoined, { inPlace: true });
  return {
    /** Says what was read. */
    begin(version: number, document: object): void {
      base.value = { version, document };
      reset();
    },
    /**
     * Follows what others save: an untouched form shows it, a changed one is joined when it is saved.
     * @param newest the version that is kept now
     * @returns whether somebody saved while the form was being changed
     */
    follow(newest: () => number | undefined, isChanged: () => boolean, show: () => void) {
      watch(
        newest,
        (now) => {
          if (now && (!base.value.version || !isChanged())) show();
        },
        { immediate: true },
      );
      return computed(() => isChanged() && (newest() ?? 0) > base.value.version);
    },
    /** @returns undefined where it failed, or somebody would rather go on editing */
    run,
    busy,
    fault,
  };
}
