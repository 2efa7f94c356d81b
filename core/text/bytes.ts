/** Sizes of files, in words. */

const UNITS = ['byte', 'kilobyte', 'megabyte', 'gigabyte'] as const;
const STEP = 1000;

/** "740 bytes", "86 kB", "1.4 MB": in thousands, as limits of hosts are given. */
export function bytesInWords(bytes: number, locale = 'en'): string {
  let at = 0;
  let value = bytes;
  // what would round to a thousand is one of the next
  while (at < UNITS.length - 1 && Math.round(value) >= STEP) {
    value /= STEP;
    at++;
  }
  return new Intl.NumberFormat(locale, {
    style: 'unit',
    unit: UNITS[at],
    unitDisplay: at === 0 ? 'long' : 'short',
    maximumFractionDigits: at > 1 ? 1 : 0,
  }).format(value);
}
