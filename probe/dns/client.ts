/** One DNS question to one server over its own sockets: UDP with EDNS, TCP when the answer was cut. */
import type { DnsAnswer } from '#core/facts/evidence';
import type { Destination } from '../addresses';
import {
  decodeAnswer,
  encodeQuestion,
  factsOf,
  type AnswerFacts,
  type Decoded,
  type Question,
} from './codec';
import { overTcp, overUdp } from './transport';

export type { Question } from './codec';
export { decodeAnswer } from './codec';

export type WireAnswer = AnswerFacts & Pick<DnsAnswer, 'transport' | 'ms' | 'error'>;

/** What stands in the place of an answer where there was none, and why. */
export const noAnswer = (error: string): WireAnswer => ({
  rcode: 'NONE',
  authoritative: false,
  authenticated: false,
  transport: 'udp',
  records: [],
  ms: 0,
  error,
});

export interface AskOptions {
  /** Set for resolvers. */
  recursive: boolean;
  /** Asks a validating resolver not to check (RFC 4035 3.2.2). */
  unchecked?: boolean;
  timeoutMs: number;
  id: () => number;
  now: () => number;
}

const FORMERR = 1;
/** Once more after a silence or nonsense, and once more without EDNS. */
const ATTEMPTS = 3;

/** One question while it is asked. */
class Asking {
  private readonly started: number;
  private edns = true;
  private reason = 'no answer in time';

  constructor(
    private readonly server: Destination,
    private readonly question: Question,
    private readonly options: AskOptions,
  ) {
    this.started = options.now();
  }

  async answer(): Promise<WireAnswer> {
    for (let attempt = 0; attempt < ATTEMPTS; attempt++) {
      const id = this.options.id();
      let message: Buffer;
      try {
        const { recursive, unchecked = false } = this.options;
        message = encodeQuestion(this.question, id, { recursive, unchecked, edns: this.edns });
      } catch (error) {
        return this.fail(`the name cannot be asked for: ${(error as Error).message}`);
      }
      try {
        const { decoded, transport } = await this.send(message, id);
        if (decoded.code === FORMERR && this.edns) {
          this.edns = false;
          continue;
        }
        return { ...factsOf(decoded), transport, ms: this.elapsed() };
      } catch (error) {
        const code = (error as { code?: string }).code;
        if (code === 'ECONNREFUSED')
          return this.fail('the server refused the question (nothing listens there)');
        if (code !== 'ETIMEDOUT') this.reason = (error as Error).message;
        if (attempt === 1) return this.fail(this.reason);
      }
    }
    return this.fail(this.reason);
  }

  private elapsed(): number {
    return Math.round(this.options.now() - this.started);
  }

  private fail(error: string): WireAnswer {
    return { ...noAnswer(error), ms: this.elapsed() };
  }

  private async send(message: Buffer, id: number): Promise<{ decoded: Decoded; transport: 'udp' | 'tcp' }> {
    const { server, question } = this;
    const { timeoutMs } = this.options;
    const bytes = await overUdp(server, message, (b) => this.isAnswer(b, id), timeoutMs / 2);
    const decoded = decodeAnswer(bytes, question, id);
    if (!decoded.cut) return { decoded, transport: 'udp' };
    const whole = await overTcp(server, message, timeoutMs);
    return { decoded: decodeAnswer(whole, question, id), transport: 'tcp' };
  }

  private isAnswer(bytes: Buffer, id: number): boolean {
    try {
      decodeAnswer(bytes, this.question, id);
      return true;
    } catch (error) {
      this.reason = `an answer that is none: ${(error as Error).message}`;
      return false;
    }
  }
}

/** Asks one server. Never throws: silence and nonsense come back as rcode NONE with the reason. */
export const ask = (server: Destination, question: Question, options: AskOptions): Promise<WireAnswer> =>
  new Asking(server, question, options).answer();
