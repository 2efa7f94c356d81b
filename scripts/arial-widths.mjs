/** Writes core/text/arial-widths.json: advances and kerning of Liberation Sans (SIL Open Font License, Debian's fonts-liberation), whose metrics are Arial's. Run by hand; the file is committed. */
import { readFileSync, writeFileSync } from 'node:fs';

const font = readFileSync(process.argv[2] ?? '/usr/share/fonts/truetype/liberation/LiberationSans-Regular.ttf');
const u16 = o => font.readUInt16BE(o), i16 = o => font.readInt16BE(o), u32 = o => font.readUInt32BE(o);
const tables = new Map(Array.from({ length: u16(4) }, (_, i) => { const o = 12 + 16 * i; return [font.toString('latin1', o, o + 4), u32(o + 8)]; }));
const unitsPerEm = u16(tables.get('head') + 18);
const metrics = u16(tables.get('hhea') + 34);
const advance = glyph => u16(tables.get('hmtx') + 4 * Math.min(glyph, metrics - 1));

/** Character to glyph, from the format 4 subtable (OpenType, cmap). */
const glyphs = new Map();
const cmap = tables.get('cmap');
for (let i = 0; i < u16(cmap + 2); i++) {
  const sub = cmap + u32(cmap + 4 + 8 * i + 4);
  if (u16(sub) !== 4) continue;
  const count = u16(sub + 6) / 2;
  for (let s = 0; s < count; s++) {
    const end = u16(sub + 14 + 2 * s), start = u16(sub + 16 + 2 * count + 2 * s), delta = i16(sub + 16 + 4 * count + 2 * s), at = sub + 16 + 6 * count + 2 * s, range = u16(at);
    for (let c = start; c <= end && c !== 0xffff; c++) {
      const glyph = range === 0 ? (c + delta) & 0xffff : u16(at + range + 2 * (c - start));
      if (glyph) glyphs.set(c, range === 0 ? glyph : (glyph + delta) & 0xffff);
    }
  }
}
const runs = [];
for (const c of [...glyphs.keys()].sort((a, b) => a - b)) {
  const last = runs.at(-1);
  if (last && last[0] + last[1].length === c) last[1].push(advance(glyphs.get(c))); else runs.push([c, [advance(glyphs.get(c))]]);
}
/** Kerning of Latin letters and signs, from the kern table's format 0. */
const kerning = {};
const byGlyph = new Map([...glyphs].filter(([c]) => c >= 32 && c < 0x250).map(([c, g]) => [g, c]));
const kern = tables.get('kern');
if (kern) {
  let o = kern + 4;
  for (let t = 0; t < u16(kern + 2); t++) {
    if ((u16(o + 4) & 0xff01) === 1) for (let p = 0; p < u16(o + 6); p++) {
      const at = o + 14 + 6 * p, a = byGlyph.get(u16(at)), b = byGlyph.get(u16(at + 2));
      if (a !== undefined && b !== undefined) kerning[String.fromCodePoint(a, b)] = i16(at + 4);
    }
    o += u16(o + 2);
  }
}
writeFileSync(new URL('../core/text/arial-widths.json', import.meta.url), `${JSON.stringify({ source: 'Liberation Sans Regular, SIL Open Font License 1.1; metric-compatible with Arial', unitsPerEm, runs, kerning })}\n`);
process.stdout.write(`${glyphs.size} characters, ${Object.keys(kerning).length} pairs\n`);
