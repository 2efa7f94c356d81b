/** How a subject calls subjects that it must not import: they connect at the start. */

/** A moment at which others add their part. */
export interface Hook<A extends unknown[]> {
  on(part: (...given: A) => Promise<void>): void;
  /** Runs all parts, one after the other, in the order in which they were connected. @throws what they throw */
  run(...given: A): Promise<void>;
}

export function defineHook<A extends unknown[]>(): Hook<A> {
  const parts: ((...given: A) => Promise<void>)[] = [];
  return {
    on(part) {
      parts.push(part);
    },
    async run(...given) {
      for (const part of parts) await part(...given);
    },
  };
}

/** A question that others answer. */
export interface Question<A extends unknown[], R> {
  answer(give: (...asked: A) => Promise<R | undefined>): void;
  /** @returns all answers, without those that are undefined */
  ask(...asked: A): Promise<R[]>;
}

export function defineQuestion<A extends unknown[], R>(): Question<A, R> {
  const answers: ((...asked: A) => Promise<R | undefined>)[] = [];
  return {
    answer(give) {
      answers.push(give);
    },
    async ask(...asked) {
      const out: R[] = [];
      for (const give of answers) {
        const one = await give(...asked);
        if (one !== undefined) out.push(one);
      }
      return out;
    },
  };
}
