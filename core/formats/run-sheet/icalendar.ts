/** A run sheet as a calendar (RFC 5545): one event a step, at its planned time, and what ends afterwards. */
import ical from 'ical-generator';
import { inOneLine } from '#core/text/controls';
import { PHASE_WORDS } from '#core/facts/launch';
import { isSettled, type StepStanding } from '#core/launch/sheet';

const USUAL_MINUTES = 15;
const MINUTE_MS = 60_000;

/** Something that ends on a day: a registration, a certificate, staging. */
export interface LaunchEnd {
  id: string;
  what: string;
  on: Date;
}

/** Steps that are done, left out or not applicable are not in it. @param of.id of the launch */
export function launchCalendar(of: {
  id: number;
  siteName: string;
  steps: readonly StepStanding[];
  ends: readonly LaunchEnd[];
  at: Date;
}): string {
  const calendar = ical({
    // the package writes it as it is: what ends a line would begin another (RFC 5545 3.1)
    name: `Launch of ${inOneLine(of.siteName)}`,
    prodId: { company: 'Armband', product: 'Run sheet', language: 'EN' },
  });
  for (const step of of.steps) {
    if (isSettled(step)) continue;
    calendar.createEvent({
      // the same event again where the sheet is exported anew (RFC 5545 3.8.4.7)
      id: `launch-${of.id}-${step.id}@armband`,
      stamp: of.at,
      start: new Date(step.plannedAt),
      end: new Date(step.plannedAt + (step.minutes ?? USUAL_MINUTES) * MINUTE_MS),
      summary: `${of.siteName}: ${step.title}`,
      description: `${PHASE_WORDS[step.phase]}. ${step.what}`,
    });
  }
  for (const { id, what, on } of of.ends)
    calendar.createEvent({
      id: `launch-${of.id}-end-${id}@armband`,
      stamp: of.at,
      start: on,
      allDay: true,
      summary: `${of.siteName}: ${what}`,
    });
  return calendar.toString();
}
