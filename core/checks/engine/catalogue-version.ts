/** Which catalogue judged: a short digest of its ids, severities, situations and parameters, and of how it scores. */
import { SEVERITY_WEIGHT } from '#core/facts/finding';
import { CATALOGUE } from '#core/checks/catalogue/index';

/** Raised when a score is reckoned in another way. */
const SCORING = 'points lost';

let known: string | undefined;

/**
 * FNV-1a over what decides outcomes and weights; it changes when a check is added, taken away or asks for
 * something else.
 */
export function catalogueVersion(): string {
  if (known) return known;
  let hash = 0x811c9dc5;
  const text = JSON.stringify([
    SCORING,
    SEVERITY_WEIGHT,
    CATALOGUE.map((c) => [c.id, c.severity, c.situations, c.scope, c.parameters ?? null]),
  ]);
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return (known = `${CATALOGUE.length}-${(hash >>> 0).toString(16).padStart(8, '0')}`);
}
