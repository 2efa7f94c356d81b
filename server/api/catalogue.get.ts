import { CATALOGUE } from '#core/checks/catalogue/index';

export default defineEventHandler(() =>
  CATALOGUE.map((c) => ({
    id: c.id,
    title: c.title,
    fault: c.fault,
    section: c.section,
    severity: c.severity,
    source: c.source,
    why: c.why,
    situations: c.situations,
    byHand: c.byHand ?? false,
    parameters: c.parameters ?? {},
  })),
);
