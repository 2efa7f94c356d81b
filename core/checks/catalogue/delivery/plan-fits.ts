import type { HostProfile } from '#core/facts/host-profile';
import { defineManualCheck } from '#core/checks/kit/check';

/** Which of the host's plans has all that the brief names: the smallest is said. */
function smallestPlan(features: readonly string[], { name, plans = [] }: HostProfile): string {
  if (!plans.length) return 'The host profile names no plans.';
  if (!features.length) return 'The brief names no features.';
  const fit = plans.find((p) => features.every((f) => p.features.includes(f)));
  return fit
    ? `The smallest plan of ${name} with ${features.join(', ')} is ${fit.name}.`
    : `No plan of ${name} has all of ${features.join(', ')}.`;
}

export const planFits = defineManualCheck({
  id: 'delivery.plan-fits',
  title: 'Hosting plan covers the site’s features',
  fault: 'Hosting plan lacks a feature of the site',
  severity: 'major',
  situations: ['staging'],
  source: 'common practice',
  attestedForDays: 180,
  why: 'A plan without the client’s own domain is noticed on the day the domain is to be connected.',
  recipe({ brief, profile }) {
    const known = smallestPlan(brief.features ?? [], profile);
    const plans = (profile.plans ?? []).map((p) => `${p.name}: ${p.features.join(', ')}`);
    return {
      steps: `${known} Compare with the plan that is paid for, before the domain is touched.`,
      ...(plans.length ? { paste: [{ label: 'Plans', text: plans.join('\n') }] } : {}),
    };
  },
});
