/** Which catalogue judged: a short digest of its ids, severities, situations and parameters, and of how it scores. */
import { SEVERITY_WEIGHT } from '#core/facts/finding';
import { CATALOGUE } from '#core/checks/catalogue/index';
import { digestOf } from '#core/text/digest';

/** Raised when a score is reckoned in another way. */
const SCORING = 'points lost';
/** Raised when findings are kept in another form, so that all are judged once more. */
const FORM = 'codes';

let known: string | undefined;

/**
 * A digest of what decides outcomes and weights; it changes when a check is added, taken away or asks for
 * something else.
 */
export function catalogueVersion(): string {
  if (known) return known;
  const text = JSON.stringify([
    SCORING,
    FORM,
    SEVERITY_WEIGHT,
    CATALOGUE.map((c) => [c.id, c.severity, c.situations, c.scope, c.parameters ?? null]),
  ]);
  return (known = `${CATALOGUE.length}-${digestOf(text)}`);
}
