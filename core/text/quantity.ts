/** Words for how many. */

const RULES = new Intl.PluralRules('en');
/** What the rules said of the counts so far: asking them is slow, and counts repeat. */
const known = new Map<number, Intl.LDMLPluralRule>();
function ruleOf(n: number): Intl.LDMLPluralRule {
  let rule = known.get(n);
  if (!rule) known.set(n, (rule = RULES.select(n)));
  return rule;
}

/** The usual plural of an English noun: "address" gives "addresses", "name server" gives "name servers". */
const usualPlural = (noun: string): string => (/(?:s|x|ch|sh)$/.test(noun) ? `${noun}es` : `${noun}s`);

/**
 * A word in the number that goes with a count: "group" for 1, "groups" for 0 and 12.
 * @param many the plural, where it is not the usual one
 */
export const inNumber = (n: number, one: string, many?: string): string =>
  ruleOf(n) === 'one' ? one : (many ?? usualPlural(one));

/** A count with its word: "1 group", "12 groups", "3 fixes". */
export const quantity = (n: number, one: string, many?: string): string => `${n} ${inNumber(n, one, many)}`;

/** A part of a count with its word: "3 of 12 pages". */
export const share = (n: number, all: number, one: string, many?: string): string =>
  `${n} of ${all} ${inNumber(all, one, many)}`;
