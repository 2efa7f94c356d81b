/** One document at a time of which somebody else has saved another version meanwhile. */
import { joinChanges, type Clash, type Overtaken } from '#core/compare/joining';

interface Asked {
  base: object;
  mine: object;
  overtaken: Overtaken;
  /** The name of a field, by its path. */
  label: (path: string) => string;
}

export const useJoining = defineStore('joining', () => {
  const asked = shallowRef<Asked | null>(null);
  /** The paths where theirs counts. */
  const theirs = ref<ReadonlySet<string>>(new Set());
  const taken = ref<string[]>([]);
  const clashes = ref<Clash[]>([]);
  let settle: ((joined: object | undefined) => void) | undefined;

  /** @returns the document joined, or undefined when somebody would rather go on editing */
  function ask(question: Asked): Promise<object | undefined> {
    answer(false);
    const found = joinChanges(question.base, question.mine, question.overtaken.now);
    asked.value = question;
    theirs.value = new Set();
    taken.value = found.taken;
    clashes.value = found.clashes;
    return new Promise((resolve) => {
      settle = resolve;
    });
  }
  function answer(yes: boolean): void {
    const question = asked.value;
    asked.value = null;
    settle?.(
      yes && question
        ? joinChanges(question.base, question.mine, question.overtaken.now, theirs.value).document
        : undefined,
    );
    settle = undefined;
  }
  function choose(path: string, isTheirs: boolean): void {
    const next = new Set(theirs.value);
    if (isTheirs) next.add(path);
    else next.delete(path);
    theirs.value = next;
  }
  return { asked, theirs, taken, clashes, ask, answer, choose };
});
