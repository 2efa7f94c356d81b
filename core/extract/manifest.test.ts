import fc from '../../tests/property';
import { describe, expect, it } from 'vitest';
import { readManifest } from './manifest';

const URL = 'https://a.example/app/site.webmanifest';

describe('readManifest', () => {
  it('reads the members and resolves addresses against the manifest', () => {
    // the shape of the typical manifest in the W3C specification's introduction
    const facts = readManifest(
      JSON.stringify({
        name: 'Tram Times',
        short_name: 'Trams',
        start_url: '../',
        scope: '/',
        theme_color: '#5b2a5e',
        icons: [
          { src: 'icon/low.webp', sizes: '48x48', type: 'image/webp' },
          { src: '/hd.png', sizes: '96x96 128x128' },
        ],
      }),
      URL,
    );
    expect(facts).toMatchObject({
      name: 'Tram Times',
      startUrl: 'https://a.example/',
      scope: 'https://a.example/',
      themeColour: '#5b2a5e',
    });
    expect(facts.icons).toEqual([
      {
        src: 'https://a.example/app/icon/low.webp',
        sizes: ['48x48'],
        type: 'image/webp',
        purpose: undefined,
      },
      { src: 'https://a.example/hd.png', sizes: ['96x96', '128x128'], type: undefined, purpose: undefined },
    ]);
  });
  it.each(['', '[]', '3', 'null', '{"icons": 3', '<html>'])('says what is wrong with %j', (source) => {
    expect(readManifest(source, URL).error).toBeTruthy();
  });
  it('passes over members of the wrong kind', () => {
    expect(readManifest('{"name":3,"icons":[null,{"src":7},"x"],"start_url":"http://["}', URL)).toEqual({
      icons: [],
    });
  });
  it('never throws', () => {
    fc.assert(
      fc.property(fc.oneof(fc.string(), fc.json()), (s) => {
        readManifest(s, URL);
      }),
    );
  });
});
