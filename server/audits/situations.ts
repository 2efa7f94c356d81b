/** What decides the situation of an environment. */
import { situationOf, type Situation } from '#core/facts/situation';
import type { Environment, Site } from '#server/sites';

export const environmentOf = (environment: Environment, site: Site): Parameters<typeof situationOf>[0] => ({
  kind: environment.kind,
  stage: site.stage,
  replaces: site.replaces,
  chosen: environment.situation,
  launchedAt: site.launchedAt?.toISOString() ?? null,
});

/** Before anything was seen there. */
export function situationFor(environment: Environment, site: Site): Situation {
  return situationOf(environmentOf(environment, site));
}
