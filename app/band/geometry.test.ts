import { describe, expect, it } from 'vitest';
import type { BandSegment } from '#core/score/score';
import { frayedPath, GAP, layOut } from './geometry';

const segment = (
  section: BandSegment['section'],
  passed: number,
  failed = 0,
  undecided = 0,
  accepted = 0,
): BandSegment => ({ section, passed, failed, undecided, accepted });

describe('the band', () => {
  it('gives each section its share of the weight and fills the width exactly', () => {
    const s = layOut(
      [
        segment('identity', 10),
        segment('https', 20, 10),
        segment('domain', 0),
        segment('indexing', 0, 0, 20),
      ],
      160,
      10,
    );
    expect(s.map((x) => x.section)).toEqual(['identity', 'https', 'indexing']);
    expect(s[1]!.width / s[0]!.width).toBeCloseTo(3);
    expect(s.at(-1)!.x + s.at(-1)!.width).toBeCloseTo(160);
    expect(s[1]!.x - (s[0]!.x + s[0]!.width)).toBeCloseTo(GAP);
  });
  it('lays passed, failed, undecided and accepted cloth from the left, without gaps', () => {
    const { pieces, x, width, words } = layOut([segment('sharing', 4, 3, 2, 1)], 100, 10)[0]!;
    expect(pieces.map((p) => p.kind)).toEqual(['passed', 'failed', 'undecided', 'accepted']);
    let at = x;
    for (const p of pieces) {
      expect(p.x).toBeCloseTo(at);
      at += p.width;
    }
    expect(at).toBeCloseTo(x + width);
    expect(pieces[1]!.path).toBeTruthy();
    expect(words).toBe('Sharing: 40 % passed, 30 % failed, 20 % undecided, 10 % accepted');
  });
  it('is empty when nothing has weight', () => {
    expect(layOut([], 160, 10)).toEqual([]);
    expect(layOut([segment('identity', 0)], 160, 10)).toEqual([]);
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
