import { handCheck, where } from '#core/checks/kit/check';

const base = handCheck({
  id: 'delivery.plan-fits',
  section: 'delivery',
  title: 'The hosting plan covers what the site needs',
  severity: 'major',
  situations: where('S'),
  source: 'common practice',
  attestedForDays: 180,
  why: 'A plan without the client’s own domain is noticed on the day the domain is to be connected.',
  how: '',
});

/** The host profile's plans stand beside the brief's features: the smallest that has them all is named. */
export const planFits = {
  ...base,
  recipe: ({ brief, profile }: Parameters<typeof base.recipe>[0]) => {
    const needs = brief.features ?? [],
      plans = profile.plans ?? [];
    const fit = plans.find((p) => needs.every((n) => p.features.includes(n)));
    const known = !plans.length
      ? 'The host profile names no plans.'
      : !needs.length
        ? 'The brief names no features.'
        : fit
          ? `The smallest plan of ${profile.name} with ${needs.join(', ')} is ${fit.name}.`
          : `No plan of ${profile.name} has all of ${needs.join(', ')}.`;
    return {
      steps: `${known} Compare with the plan that is paid for, before the domain is touched.`,
      ...(plans.length
        ? {
            paste: [
              { label: 'Plans', text: plans.map((p) => `${p.name}: ${p.features.join(', ')}`).join('\n') },
            ],
          }
        : {}),
    };
  },
};
