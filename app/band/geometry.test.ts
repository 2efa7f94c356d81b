import { describe, expect, it } from 'vitest';
import type { BandSegment } from '#core/score/score';
import { FILLED_BY, frayedPath, GAP, layoutBand, LEAST_FRAY } from './geometry';

const segment = (
  section: BandSegment['section'],
  lost: number,
  passed = 10,
  undecided = 0,
  accepted = 0,
): BandSegment => ({ section, lost, passed, undecided, accepted });
const one = (s: BandSegment, width = 100) => layoutBand([s], width, 10)[0]!;
const fray = (s: BandSegment): number => one(s).pieces.find((p) => p.kind === 'failed')?.width ?? 0;

describe('the band', () => {
  it('gives every section the same width, whatever was asked of it, and fills the width exactly', () => {
    const s = layoutBand(
      [segment('identity', 0), segment('https', 12, 20), segment('domain', 0, 0), segment('indexing', 40)],
      160,
      10,
    );
    expect(new Set(s.map((x) => x.width.toFixed(6))).size).toBe(1);
    expect(s.at(-1)!.x + s.at(-1)!.width).toBeCloseTo(160);
    expect(s[1]!.x - (s[0]!.x + s[0]!.width)).toBeCloseTo(GAP);
    expect(s[2]!.pieces).toEqual([]);
  });
  it.each([
    ['nothing lost', 0, 0],
    ['half of what fills it', FILLED_BY / 2, 50],
    ['the least fault', 0.5, LEAST_FRAY],
    ['all that fills it', FILLED_BY, 100],
    ['more than that', 90, 100],
  ])('frays as wide as the points lost: %s', (_, lost, width) => {
    expect(fray(segment('domain', lost))).toBeCloseTo(width);
  });
  it('frays all of a segment of which nothing else was asked', () => {
    expect(fray(segment('domain', 1, 0))).toBeCloseTo(100);
  });
  it('lays what holds, what is lost, undecided and accepted from the left, without gaps', () => {
    const { pieces, x, width, words } = one(segment('sharing', 5, 5, 3, 2));
    expect(pieces.map((p) => [p.kind, Math.round(p.width)])).toEqual([
      ['passed', 40],
      ['failed', 20],
      ['undecided', 24],
      ['accepted', 16],
    ]);
    let at = x;
    for (const p of pieces) {
      expect(p.x).toBeCloseTo(at);
      at += p.width;
    }
    expect(at).toBeCloseTo(x + width);
    expect(pieces[1]!.path).toBeTruthy();
    expect(words).toBe('Sharing: 5 points lost, 30 % undecided, 20 % accepted');
  });
  it('is empty without an audit', () => {
    expect(layoutBand([], 160, 10)).toEqual([]);
  });
  it('frays within its place: a closed path with teeth between both ends, from the top to the bottom', () => {
    for (const [x, width, height] of [
      [0, 1, 10],
      [20, 30, 10],
      [5, 100, 18],
    ] as const) {
      const d = frayedPath(x, width, height);
      expect(d).toMatch(/^M.*Z$/);
      const points = [...d.matchAll(/[ML](-?[\d.]+) (-?[\d.]+)/g)].map(
        (m) => [Number(m[1]), Number(m[2])] as const,
      );
      expect(Math.min(...points.map((p) => p[0]))).toBeGreaterThanOrEqual(x - 0.01);
      expect(Math.max(...points.map((p) => p[0]))).toBeLessThanOrEqual(x + width + 0.01);
      expect(Math.min(...points.map((p) => p[1]))).toBe(0);
      expect(Math.max(...points.map((p) => p[1]))).toBe(height);
    }
  });
});
