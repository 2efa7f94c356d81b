/**
 * The band as shapes: eight segments, all equally wide. In each, from the left: solid cloth for what holds, frayed
 * cloth as wide as the points lost, hatching for what is undecided of the rest, outline for what is accepted.
 */
import { SECTION_TITLES, type Section } from '#core/facts/finding';
import type { BandSegment } from '#core/score/score';
import { pointsText } from '#core/text/points';

type Cloth = 'passed' | 'failed' | 'undecided' | 'accepted';
interface Piece {
  kind: Cloth;
  x: number;
  width: number;
  /** Outline of frayed cloth. */
  path?: string;
}
export interface Segment {
  section: Section;
  x: number;
  width: number;
  pieces: Piece[];
  words: string;
}

export const GAP = 2;
/** So many points lost fill a segment. */
export const FILLED_BY = 25;
/** The least fault shows. */
export const LEAST_FRAY = 3;

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

function wordsOf({ section, lost, undecided, accepted }: BandSegment, weight: number): string {
  const parts = [
    lost ? `${pointsText(lost)} points lost` : weight ? 'nothing lost' : 'nothing asked',
    undecided ? `${percent(undecided, weight)} undecided` : '',
    accepted ? `${percent(accepted, weight)} accepted` : '',
  ];
  return `${SECTION_TITLES[section]}: ${parts.filter(Boolean).join(', ')}`;
}

/** Widths of the pieces of one segment. */
function widthsOf(s: BandSegment, width: number): Record<Cloth, number> {
  const rest = s.passed + s.undecided + s.accepted;
  const torn = s.lost ? Math.min(width, Math.max(LEAST_FRAY, (width * s.lost) / FILLED_BY)) : 0;
  // where nothing else was asked, nothing else is there to be drawn
  const fray = rest ? torn : s.lost ? width : 0;
  const part = (weight: number): number => (rest ? ((width - fray) * weight) / rest : 0);
  return {
    passed: part(s.passed),
    failed: fray,
    undecided: part(s.undecided),
    accepted: part(s.accepted),
  };
}

const ORDER: readonly Cloth[] = ['passed', 'failed', 'undecided', 'accepted'];

/** Lays the segments out from the left; one of which nothing was asked has no pieces. */
export function layoutBand(band: readonly BandSegment[], width: number, height: number): Segment[] {
  const own = (width - GAP * (band.length - 1)) / band.length;
  return band.map((s, i) => {
    const x = i * (own + GAP);
    const widths = widthsOf(s, own);
    let at = x;
    const pieces = ORDER.flatMap((kind): Piece[] => {
      const piece = { kind, x: at, width: widths[kind] };
      at += piece.width;
      if (piece.width <= 0) return [];
      return [kind === 'failed' ? { ...piece, path: frayedPath(piece.x, piece.width, height) } : piece];
    });
    const weight = s.passed + s.undecided + s.accepted;
    return { section: s.section, x, width: own, pieces, words: wordsOf(s, weight) };
  });
}
