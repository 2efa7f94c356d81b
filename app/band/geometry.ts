/**
 * The band as shapes: eight segments as wide as their share of the weight; solid, frayed, hatched or outlined
 * cloth inside.
 */
import { SECTION_TITLES, type Section } from '#core/facts/finding';
import type { BandSegment } from '#core/score/score';

export type Cloth = 'passed' | 'failed' | 'undecided' | 'accepted';
export interface Piece {
  kind: Cloth;
  x: number;
  width: number;
  /** Outline of frayed cloth. */ path?: string;
}
export interface Segment {
  section: Section;
  x: number;
  width: number;
  pieces: Piece[];
  words: string;
}

export const GAP = 2;
const KINDS: readonly Cloth[] = ['passed', 'failed', 'undecided', 'accepted'];

/** Frayed cloth: a full body with a sawtooth upper edge. */
export function frayedPath(x: number, width: number, height: number): string {
  const tooth = Math.max(3, height * 0.45);
  const teeth = Math.max(1, Math.round(width / tooth));
  const step = width / teeth;
  const at = (n: number) => Number(n.toFixed(2));
  let d = `M${at(x)} ${height}V${at(height * 0.55)}`;
  for (let i = 0; i < teeth; i++)
    d += `L${at(x + step * (i + 0.5))} ${i % 2 ? at(height * 0.12) : 0}L${at(x + step * (i + 1))} ${at(height * 0.55)}`;
  return `${d}V${height}Z`;
}

const percent = (part: number, all: number): string => `${Math.round((100 * part) / all)} %`;

/**
 * Lays the segments out from the left; sections without weight are left out. Empty when nothing has weight.
 */
export function layOut(band: readonly BandSegment[], width: number, height: number): Segment[] {
  const weightOf = (s: BandSegment) => s.passed + s.failed + s.undecided + s.accepted;
  const shown = band.filter((s) => weightOf(s) > 0);
  const all = shown.reduce((sum, s) => sum + weightOf(s), 0);
  const space = width - GAP * (shown.length - 1);
  let x = 0;
  return shown.map((s) => {
    const weight = weightOf(s);
    const own = (space * weight) / all;
    const segment: Segment = {
      section: s.section,
      x,
      width: own,
      pieces: [],
      words: `${SECTION_TITLES[s.section]}: ${percent(s.passed, weight)} passed, ${percent(s.failed, weight)} failed, ${percent(s.undecided, weight)} undecided${s.accepted ? `, ${percent(s.accepted, weight)} accepted` : ''}`,
    };
    let at = x;
    for (const kind of KINDS) {
      const part = (own * s[kind]) / weight;
      if (part <= 0) continue;
      segment.pieces.push({
        kind,
        x: at,
        width: part,
        ...(kind === 'failed' ? { path: frayedPath(at, part, height) } : {}),
      });
      at += part;
    }
    x += own + GAP;
    return segment;
  });
}
