/** Names that are probably meant to be the same. */
import { foldLoosely } from './fold';

/** Below this, one letter makes another word. */
const SHORTEST = 4;

/** Whether one letter more, less or other, or two in the wrong order, makes one text of the other. */
function isOneEditApart(a: string, b: string): boolean {
  const [short, long] = a.length <= b.length ? [[...a], [...b]] : [[...b], [...a]];
  if (long.length - short.length > 1) return false;
  let start = 0;
  while (start < short.length && short[start] === long[start]) start++;
  const rest = (letters: string[], from: number): string => letters.slice(from).join('');
  if (short.length < long.length) return rest(short, start) === rest(long, start + 1);
  if (rest(short, start + 1) === rest(long, start + 1)) return true;
  return (
    short[start] === long[start + 1] &&
    short[start + 1] === long[start] &&
    rest(short, start + 2) === rest(long, start + 2)
  );
}

/** Whether two names differ in case, accents or spaces alone, or by one letter; the same name is not alike. */
export function isAlike(a: string, b: string): boolean {
  if (a === b) return false;
  const [one, other] = [foldLoosely(a), foldLoosely(b)];
  if (one === other) return true;
  return Math.min(one.length, other.length) >= SHORTEST && isOneEditApart(one, other);
}
