import { defineManualCheck } from '#core/checks/kit/check';

export const timeZone = defineManualCheck({
  id: 'identity.time-zone',
  title: 'Time zone, date format and week start are the client’s',
  fault: 'Time zone, date format or week start is not the client’s',
  severity: 'minor',
  situations: ['staging'],
  source: 'common practice',
  why: 'Posts, opening hours and bookings an hour off are noticed by everybody but the agency.',
  how: 'Look in the product’s settings: time zone by place and not by offset (so that summer time works), date and time format, first day of the week.',
});
