/** Points lost in figures: whole ones plain, others with one decimal. */
export function pointsText(points: number): string {
  const rounded = Math.round(points * 10) / 10;
  if (points > 0 && rounded === 0) return 'less than 0.1';
  return Number.isInteger(rounded) ? String(rounded) : rounded.toFixed(1);
}
