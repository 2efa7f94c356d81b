/** Where subjects further up, which a subject must not import, have their say. They connect at the start. */

/** Something that happens, at which others do their part. */
export interface Hook<A extends unknown[]> {
  on(part: (...given: A) => Promise<void>): void;
  /** Does all parts, one after the other, in the order in which they were connected. @throws what they throw */
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

/** Something that has to be known, which others know. */
export interface Question<A extends unknown[], R> {
  answer(give: (...asked: A) => Promise<R | undefined>): void;
  /** @returns what all of them answered, without those that had nothing to say */
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
