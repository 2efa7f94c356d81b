/**
 * Writes core/text/arial-widths.json: advances and kerning of Arimo (Apache licence, npm @fontsource/arimo),
 * whose metrics are Arial's. Run by hand; the file is committed.
 */
import { readdirSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import * as fontkit from 'fontkit';

const FOLDER = new URL('../node_modules/@fontsource/arimo/files/', import.meta.url);
const fonts = readdirSync(FOLDER)
  .filter((f) => /-400-normal\.woff$/.test(f))
  .sort((a, b) => Number(b.includes('-latin-400')) - Number(a.includes('-latin-400')))
  .map((f) => fontkit.openSync(fileURLToPath(new URL(f, FOLDER))));
const unitsPerEm = fonts[0].unitsPerEm;
/** Straight from the table of horizontal metrics: an outline is not needed for an advance. */
const advanceOf = (font, c) => {
  const { metrics } = font.hmtx;
  return metrics.get(Math.min(font.glyphForCodePoint(c).id, metrics.length - 1)).advance;
};
/** Single letters and signs; marks are put together with theirs before they are measured. */
const letters = new Map();
for (const font of fonts)
  for (const c of font.characterSet)
    if (c >= 32 && !letters.has(c) && !/\p{M}/u.test(String.fromCodePoint(c))) letters.set(c, font);
const advances = new Map(
  [...letters].map(([c, font]) => [c, Math.round((advanceOf(font, c) * 2048) / font.unitsPerEm)]),
);
const runs = [];
for (const c of [...advances.keys()].sort((a, b) => a - b)) {
  const last = runs.at(-1);
  if (last && last[0] + last[1].length === c) last[1].push(advances.get(c));
  else runs.push([c, [advances.get(c)]]);
}
/**
 * Kerning within one file: browsers shape a run of one script at a time. Spaces have no outline, which is all
 * that fontkit needs them for.
 */
const kerning = {};
const Glyph = Object.getPrototypeOf(fonts[0].glyphForCodePoint(0x41));
const boxOf = Glyph._getCBox;
Glyph._getCBox = function (...given) {
  try {
    return boxOf.apply(this, given);
  } catch {
    return { minX: 0, minY: 0, maxX: 0, maxY: 0, width: 0, height: 0 };
  }
};
const kern = (font, a, b) =>
  font.layout(String.fromCodePoint(a, b)).positions[0].xAdvance - advanceOf(font, a);
for (const font of fonts) {
  const own = [...letters]
    .filter(([c, f]) => f === font && (c < 0x250 || (c >= 0x370 && c < 0x530) || (c >= 0x2010 && c < 0x2100)))
    .map(([c]) => c);
  for (const a of own)
    for (const b of own) {
      const by = kern(font, a, b);
      if (by) kerning[String.fromCodePoint(a, b)] = Math.round((by * 2048) / font.unitsPerEm);
    }
}
writeFileSync(
  new URL('../core/text/arial-widths.json', import.meta.url),
  `${JSON.stringify({ source: 'Arimo Regular, Apache License 2.0; metric-compatible with Arial', unitsPerEm: 2048, runs, kerning })}\n`,
);
process.stdout.write(
  `${advances.size} characters, ${Object.keys(kerning).length} pairs, ${unitsPerEm} units\n`,
);
