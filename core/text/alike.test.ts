import { describe, expect, it } from 'vitest';
import { isAlike } from './alike';

describe('names that are probably meant to be the same', () => {
  it.each([
    ['the same name is not alike', 'Sallow Ferries', 'Sallow Ferries', false],
    ['case', 'Sallow Ferries', 'sallow ferries', true],
    ['spaces', 'Sallow Ferries', ' Sallow  Ferries', true],
    ['accents', 'Café Tern', 'Cafe Tern', true],
    ['one letter more', 'Sallow Ferries', 'Sallow Ferriess', true],
    ['one letter less at the start', 'Sallow Ferries', 'allow Ferries', true],
    ['another letter', 'Sallow Ferries', 'Sollow Ferries', true],
    ['two letters in the wrong order', 'Sallow Ferries', 'Sallow Freries', true],
    ['two other letters', 'Sallow Ferries', 'Sollow Ferriez', false],
    ['two letters more', 'Sallow Ferries', 'Sallow Ferries Co', false],
    ['short names, where a letter makes another word', 'Tea', 'Sea', false],
    ['a letter beyond the basic plane', 'Tern 🛶', 'Tern 🛟', true],
    ['nothing in common', 'Rope Walk', 'Tram Society', false],
  ])('%s', (_, a, b, alike) => {
    expect(isAlike(a, b)).toBe(alike);
    expect(isAlike(b, a)).toBe(alike);
  });
});
