/** Spans of time in words. */
import { quantity } from './quantity';

/** A number of seconds as people say it: “5 min”, “2 h”, “1 day”. */
export function durationWords(seconds: number): string {
  if (seconds < 120) return `${seconds} s`;
  if (seconds < 7200) return `${Math.round(seconds / 60)} min`;
  return seconds < 172_800
    ? `${Math.round(seconds / 3600)} h`
    : quantity(Math.round(seconds / 86_400), 'day');
}
