import { defineManualCheck } from '#core/checks/kit/check';

export const smallScreen = defineManualCheck({
  id: 'delivery.small-screen',
  title: 'Phone layout was looked through',
  fault: 'Phone layout has a fault',
  severity: 'major',
  situations: ['staging', 'live'],
  source: 'common practice',
  attestedForDays: 90,
  pictures: 'phone',
  why: 'More than half of the visitors see it there and nowhere else.',
  how: 'Open every page at phone width and press every button.',
});
