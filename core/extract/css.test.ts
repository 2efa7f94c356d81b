import fc from '../../tests/property';
import { describe, expect, it } from 'vitest';
import { cssUrls, readCss } from './css';

describe('readCss', () => {
  it('finds declared and used fonts, with lines, whatever the quotes', () => {
    const facts = readCss(`/* a
comment with @font-face { font-family: "Ghost" } */
@font-face { font-family: "Tern Sans"; src: url(tern.woff2) format("woff2"), url('tern.woff') }
@media print { body { font: italic 700 16px/1.5 "Tern Sans", 'Reed, Old', serif } }
h1 { font-family: Gull !important }
:root { --font-body: Plover, sans-serif }`);
    expect(facts.fontFaces).toEqual([{ family: 'Tern Sans', sources: ['tern.woff2', 'tern.woff'], line: 3 }]);
    expect(facts.families.sort()).toEqual(['gull', 'plover', 'reed, old', 'tern sans']);
  });
  it('a family named in its own @font-face only is not used', () => {
    expect(readCss('@font-face{font-family:A;src:url(a.woff)}').families).toEqual([]);
  });
  it('lists what is loaded, data addresses left out', () => {
    expect(
      cssUrls(
        '@import "x.css"; a{background:url( "a.png" )} b{background:url(data:image/png;base64,AA)} c{background:URL(b.png)}',
      ).sort(),
    ).toEqual(['a.png', 'b.png', 'x.css']);
  });
  it('never throws and stays linear on nonsense', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 400 }), (s) => {
        readCss(s);
      }),
    );
    const started = performance.now();
    readCss('{'.repeat(200_000));
    readCss('/*'.repeat(100_000));
    readCss('url('.repeat(100_000));
    readCss('a{font:'.repeat(50_000));
    expect(performance.now() - started).toBeLessThan(10_000);
  });
});
