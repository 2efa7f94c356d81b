/** Who may ask a host when, over all that look at it at once. */
export interface HostGate {
  /**
   * Waits until one more request to this host may begin.
   * @returns how to say that it has ended
   * @throws the signal's reason when it is aborted
   */
  enter(host: string, signal?: AbortSignal): Promise<() => void>;
}

/** No limit but each client's own. */
export const OPEN_GATE: HostGate = { enter: () => Promise.resolve(() => {}) };
