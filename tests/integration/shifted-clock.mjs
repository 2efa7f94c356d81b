/** Preloaded into a worker: its clock is three hours ahead. */
const AHEAD_MS = 3 * 3_600_000;
const { Date: Real } = globalThis;
globalThis.Date = class extends Real {
  constructor(...given) {
    if (given.length) super(...given);
    else super(Real.now() + AHEAD_MS);
  }
  static now() {
    return Real.now() + AHEAD_MS;
  }
};
