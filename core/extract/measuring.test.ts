import { describe, expect, it } from 'vitest';
import { isPageView, measuringHit } from './measuring';

const IDS = ['TM-960101'];
const TO = 'https://count.example/hit';

describe('which requests count a visit', () => {
  it.each([
    ['a beacon', { url: TO, type: 'ping' }, {}],
    [
      'a picture with the ID of the brief',
      { url: `${TO}?site=TM-960101`, type: 'image' },
      { id: 'TM-960101' },
    ],
    ['an ID in a body', { url: TO, type: 'fetch', body: '{"site":"TM-960101"}' }, { id: 'TM-960101' }],
    ['an ID of a known shape', { url: `${TO}?tid=G-ABC1234&en=page_view`, type: 'xhr' }, { id: 'G-ABC1234' }],
    [
      'an ID in its encoded form',
      { url: `${TO}?tid=UA%2D1234567%2D1`, type: 'image' },
      { id: 'UA-1234567-1' },
    ],
  ])('%s does', (_, request, wanted) => {
    expect(measuringHit(request, IDS)).toMatchObject(wanted);
  });
  it.each([
    ['the script that counts', { url: `${TO}?site=TM-960101`, type: 'script' }],
    ['a page with such an address', { url: 'https://a.example/G-ABC1234', type: 'document' }],
    ['a picture like any other', { url: 'https://a.example/view.png', type: 'image' }],
    ['a longer word that holds an ID', { url: 'https://a.example/?x=BIG-ABC1234', type: 'image' }],
    ['a longer ID that begins like the brief’s', { url: `${TO}?site=TM-9601012`, type: 'image' }],
    ['what is no web address', { url: 'data:image/gif;base64,G-ABC1234', type: 'image' }],
    ['a broken escape', { url: 'https://a.example/?x=%E0%A4%A', type: 'fetch' }],
  ])('%s does not', (_, request) => {
    expect(measuringHit(request, IDS)).toBeUndefined();
  });
  it.each([
    [`${TO}?site=TM-960101&en=page_view`, undefined, 'page_view'],
    [`${TO}?site=TM-960101`, 'en=scroll&epn=90', 'scroll'],
    [`${TO}?site=TM-960101`, '{"event":"pageview"}', 'pageview'],
    [`${TO}?site=TM-960101`, undefined, undefined],
  ])('%s with %s says that %s happened', (url, body, event) => {
    expect(measuringHit({ url, type: 'fetch', body }, IDS)?.event).toBe(event);
  });
  it.each([
    [undefined, true],
    ['page_view', true],
    ['Page View', true],
    ['pageview', true],
    ['scroll', false],
    ['user_engagement', false],
  ])('the event %s counts a page: %s', (event, wanted) => {
    expect(isPageView({ event })).toBe(wanted);
  });
});
