/** The practice net’s time, which can be sped up together with Armband’s. */
export class PracticeClock {
  private realAt = Date.now();
  private shownAt = Date.now();
  private rate = 1;

  /** @param given another clock, for tests that have their own */
  constructor(private readonly given?: () => Date) {}

  /** Milliseconds. */
  readonly now = (): number =>
    this.given ? this.given().getTime() : this.shownAt + (Date.now() - this.realAt) * this.rate;

  /** From now on it shows `shownAt`, and runs `rate` times as fast as real time. @throws RangeError */
  set(shownAt: number, rate: number): void {
    if (!Number.isFinite(shownAt) || !(rate > 0 && rate <= 100_000)) throw new RangeError('no such time');
    this.realAt = Date.now();
    this.shownAt = shownAt;
    this.rate = rate;
  }
}
