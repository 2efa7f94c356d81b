/** An exact, non-negative share. */
export interface Fraction {
  num: number;
  den: number;
}

export const ONE: Fraction = { num: 1, den: 1 };
export const ZERO: Fraction = { num: 0, den: 1 };

function gcd(a: bigint, b: bigint): bigint {
  while (b) [a, b] = [b, a % b];
  return a;
}

/**
 * A sum of fractions without rounding. Big integers, since denominators of 37, 41 and 43 pages multiply fast.
 */
export class ExactSum {
  private num = 0n;
  private den = 1n;

  /** Adds `times` x `part`. `times` may have up to three decimals (weights are set by people). */
  add(times: number, part: Fraction = ONE): this {
    const n = BigInt(Math.round(times * 1000)) * BigInt(part.num);
    const d = 1000n * BigInt(part.den);
    this.num = this.num * d + n * this.den;
    this.den *= d;
    const g = gcd(this.num, this.den);
    if (g > 1n) {
      this.num /= g;
      this.den /= g;
    }
    return this;
  }

  get isZero(): boolean {
    return this.num === 0n;
  }

  /** @returns floor(100 x this / whole). */
  percentOf(whole: ExactSum): number {
    return Number((100n * this.num * whole.den) / (this.den * whole.num));
  }

  /** @returns floor(`from` - this), and nothing below nought. */
  leftOf(from: number): number {
    const left = BigInt(from) * this.den - this.num;
    return left <= 0n ? 0 : Number(left / this.den);
  }

  /** @returns whether this is less than `percent` of `whole`, exactly. */
  below(percent: number, whole: ExactSum): boolean {
    return 100n * this.num * whole.den < BigInt(percent) * this.den * whole.num;
  }

  toString(): string {
    return this.den === 1n ? `${this.num}` : `${this.num}/${this.den}`;
  }
  toNumber(): number {
    return Number(this.num) / Number(this.den);
  }
}
