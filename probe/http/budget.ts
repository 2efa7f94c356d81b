/** What one audit may fetch and keep altogether, however many addresses a site has and whatever it answers. */
import { ProbeError } from '../network-error';

const MIB = 1024 * 1024;

export interface BudgetLimits {
  exchanges: number;
  /** Of bodies, unpacked. */
  bodyBytes: number;
  /** Of headers that are kept. */
  headerBytes: number;
}
const LIMITS: BudgetLimits = { exchanges: 40_000, bodyBytes: 1024 * MIB, headerBytes: 48 * MIB };

export class Budget {
  private exchanges = 0;
  private bodyBytes = 0;
  private headerBytes = 0;

  constructor(private readonly limits: BudgetLimits = LIMITS) {}

  /** Why nothing more is asked; undefined while there is something left. */
  get spent(): string | undefined {
    const { exchanges, bodyBytes, headerBytes, limits } = this;
    if (exchanges >= limits.exchanges) return `${limits.exchanges.toLocaleString('en')} requests`;
    if (bodyBytes >= limits.bodyBytes) return `${limits.bodyBytes / MIB} MB of answers`;
    if (headerBytes >= limits.headerBytes) return `${limits.headerBytes / MIB} MB of headers`;
    return undefined;
  }

  /** One more request. @throws ProbeError too-large where the audit has had its share */
  begin(): void {
    const { spent } = this;
    if (spent) throw new ProbeError('too-large', `the audit has had its share: ${spent}`);
    this.exchanges++;
  }

  body(bytes: number): void {
    this.bodyBytes += bytes;
  }

  headers(bytes: number): void {
    this.headerBytes += bytes;
  }
}
