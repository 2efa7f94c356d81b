/**
 * What the server tells while it is looked at: how far long work is, and what has changed. One tab of a browser
 * listens and passes it on to the others.
 */
import { screenKeys, type DomainEvent } from '#core/facts/domain-events';
import type { Job, RunningAudit } from '~/types';

interface Progress {
  audits: { running: number; waiting: number; list: RunningAudit[] };
  jobs: Job[];
}
type Told = { progress: Progress } | { events: DomainEvent[] } | { anew: true };
/** A tab that has just come asks how things stand. */
const HELLO = 'hello';

const NAME = 'armband-live';
const NOTHING: Progress = { audits: { running: 0, waiting: 0, list: [] }, jobs: [] };
/** Lists of more windows than this are not read again with every change. */
const MANY_WINDOWS = 4;
const LATER_MS = 10_000;
/** How long after a stream broke another is tried. */
const AGAIN_MS = 2000;

export const useLive = defineStore('live', () => {
  const progress = ref<Progress>(NOTHING);
  /** Whether changes are told: where they are not, whoever changes something asks anew. */
  const isOpen = ref(false);
  let channel: BroadcastChannel | undefined;
  let leave: (() => void) | undefined;

  /** Long lists that were scrolled far are asked for again later, all at once. */
  const later = new Map<string, (string | number)[]>();
  let timer: ReturnType<typeof setTimeout> | undefined;
  function refresh(queryKey: (string | number)[]): void {
    const { $queryClient } = useNuxtApp();
    const isLong = (query: { state: { data?: unknown } }): boolean =>
      ((query.state.data as { pages?: unknown[] } | undefined)?.pages?.length ?? 0) > MANY_WINDOWS;
    void $queryClient.invalidateQueries({ queryKey, predicate: (query) => !isLong(query) });
    if (!$queryClient.getQueryCache().findAll({ queryKey, predicate: isLong }).length) return;
    later.set(JSON.stringify(queryKey), queryKey);
    timer ??= setTimeout(() => {
      timer = undefined;
      for (const key of later.values()) void $queryClient.invalidateQueries({ queryKey: key });
      later.clear();
    }, LATER_MS);
  }

  function take(told: Told): void {
    const { $queryClient } = useNuxtApp();
    isOpen.value = true;
    if ('progress' in told) progress.value = told.progress;
    // what happened while nobody listened is not known
    else if ('anew' in told) void $queryClient.invalidateQueries();
    else {
      const keys = told.events.flatMap((event) => screenKeys(event));
      for (const key of new Map(keys.map((k) => [JSON.stringify(k), k])).values()) refresh(key);
    }
  }
  function pass(told: Told): void {
    take(told);
    channel?.postMessage(told);
  }

  /** What was read before anybody listened may have changed since: a first stream can be long in coming. */
  function askAgain(): void {
    const { $queryClient } = useNuxtApp();
    void $queryClient.invalidateQueries({ predicate: (query) => query.state.dataUpdatedAt > 0 });
  }

  /** Listens until the tab goes or the stream is left. */
  function listen(signal: AbortSignal): Promise<void> {
    return new Promise((resolve) => {
      let stream: EventSource;
      let timer: ReturnType<typeof setTimeout> | undefined;
      // what happened between two tabs that listen is not known either
      let wasOpen = isOpen.value;
      const open = (): void => {
        stream = new EventSource('/api/live');
        stream.addEventListener('open', () => {
          if (wasOpen) pass({ anew: true });
          else askAgain();
          wasOpen = true;
        });
        stream.addEventListener('progress', ({ data }) => pass({ progress: JSON.parse(data) as Progress }));
        stream.addEventListener('changed', ({ data }) => pass(JSON.parse(data) as { events: DomainEvent[] }));
        stream.addEventListener('error', () => {
          isOpen.value = false;
          if (stream.readyState !== EventSource.CLOSED) return;
          // the server refused: a session that has ended leads to sign-in, anything else is tried again
          void api('/api/me').catch(() => {});
          timer = setTimeout(open, AGAIN_MS);
        });
      };
      open();
      channel?.addEventListener('message', ({ data }) => {
        if (data === HELLO) channel?.postMessage({ progress: toRaw(progress.value) } satisfies Told);
      });
      signal.addEventListener('abort', () => {
        clearTimeout(timer);
        stream.close();
        resolve();
      });
    });
  }

  /** From the first screen on that somebody who is signed in sees. */
  function start(): void {
    if (leave) return;
    const stop = new AbortController();
    leave = () => stop.abort();
    channel = new BroadcastChannel(NAME);
    channel.addEventListener('message', ({ data }) => {
      if (data !== HELLO) take(data as Told);
    });
    channel.postMessage(HELLO);
    // whoever holds the lock listens; the next tab takes over when that one goes
    navigator.locks
      .request(NAME, { signal: stop.signal }, () => listen(stop.signal))
      .catch(() => {
        /* left before it was this tab's turn */
      });
  }
  function halt(): void {
    leave?.();
    leave = undefined;
    channel?.close();
    channel = undefined;
    progress.value = NOTHING;
    isOpen.value = false;
  }
  const running = computed(() => new Map(progress.value.audits.list.map((a) => [a.environmentId, a])));
  return { progress, running, isOpen, start, halt };
});
