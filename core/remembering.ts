/**
 * A function that answers each question once: for what many pages ask alike.
 * @param most questions it remembers; then it begins anew, so that one kept for good does not grow without
 * end
 */
export function memoize<A, B>(answer: (question: A) => B, most = Infinity): (question: A) => B {
  const known = new Map<A, B>();
  return (question) => {
    let is = known.get(question);
    if (is === undefined && !known.has(question)) {
      if (known.size >= most) known.clear();
      known.set(question, (is = answer(question)));
    }
    return is as B;
  };
}

/**
 * The same for texts, of which only short ones are remembered: long ones are seldom asked for twice.
 * @param longest in UTF-16 units
 */
export function memoizeShort<B>(
  answer: (text: string) => B,
  longest: number,
  most: number,
): (text: string) => B {
  const short = memoize(answer, most);
  return (text) => (text.length <= longest ? short(text) : answer(text));
}

/** The same for questions that are objects, and for as long as they are there. */
export function memoizeWhile<A extends object, B>(answer: (question: A) => B): (question: A) => B {
  const known = new WeakMap<A, { answer: B }>();
  return (question) => {
    let found = known.get(question);
    if (!found) known.set(question, (found = { answer: answer(question) }));
    return found.answer;
  };
}
