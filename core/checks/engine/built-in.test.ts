/** The checklists that come with the catalogue, and the catalogue's own version. */
import { describe, expect, it } from 'vitest';
import { SECTIONS } from '#core/facts/finding';
import { readChecklist } from '#core/entry/checklist';
import { checklistMarkdown } from '#core/formats/checklist-markdown';
import { builtInChecklists } from './built-in';
import { catalogueVersion } from './catalogue-version';
import { CATALOGUE, checkById } from '#core/checks/catalogue/index';

describe('built-in checklists', () => {
  it('are three, whole and without faults', async () => {
    const lists = builtInChecklists();
    expect(lists.map((l) => l.name)).toEqual(['Full', 'Quick launch', 'Monthly look']);
    for (const l of lists) {
      expect((await readChecklist(l)).faults, l.name).toEqual([]);
      for (const s of SECTIONS)
        expect(
          l.items.some((i) => i.on !== false && checkById.get(i.check)!.section === s),
          `${l.name} ${s}`,
        ).toBe(true);
    }
    expect(lists[0]!.items).toHaveLength(CATALOGUE.length);
  });
  it('the quick one leaves out no blocker that is decided at launch', () => {
    const quick = new Set(
      builtInChecklists()[1]!
        .items.filter((i) => i.on !== false)
        .map((i) => i.check),
    );
    expect(CATALOGUE.filter((c) => c.severity === 'blocker' && !quick.has(c.id)).map((c) => c.id)).toEqual(
      [],
    );
  });
  it('at least twenty rules are marked as common practice', () => {
    expect(CATALOGUE.filter((c) => /common practice/i.test(c.source)).length).toBeGreaterThanOrEqual(20);
  });
});

describe('the catalogue’s version', () => {
  it('is a count and a digest, the same each time', () => {
    expect(catalogueVersion()).toMatch(new RegExp(`^${CATALOGUE.length}-[0-9a-f]{8}$`));
    expect(catalogueVersion()).toBe(catalogueVersion());
  });
});

describe('a checklist to print', () => {
  it('lists what is on by section, with severities, limits and notes, and own titles cannot begin markup', () => {
    const text = checklistMarkdown({
      name: 'Ours *bold*',
      version: 3,
      description: 'For <all>',
      items: [
        { check: 'https.answers', title: '# big' },
        { check: 'https.certificate-days', severity: 'blocker', note: 'two\nlines' },
        { check: 'identity.home-page', on: false },
        { check: 'own.ring' },
      ],
      own: [
        {
          id: 'own.ring',
          section: 'delivery',
          title: 'Ring the client',
          severity: 'minor',
          situations: ['live'],
        },
      ],
    });
    expect(text.split('\n').slice(0, 5)).toEqual(['# Ours \\*bold\\*', '', 'For \\<all\\>', '', 'Version 3']);
    expect(text).toContain('- [ ] \\# big (blocker');
    expect(text).toMatch(
      /Certificate does not end soon \(blocker, 21 days; holding page, live\) {2}\n {2}two lines/,
    );
    expect(text).toContain('- [ ] Ring the client (minor, manual; live)');
    expect(text).not.toContain('home page is the right one');
    expect(text).not.toContain('## Identity');
  });
});
