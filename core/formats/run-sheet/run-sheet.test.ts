/** A run sheet as Markdown and as a calendar, read by others’ readers. */
import { HtmlRenderer, Parser } from 'commonmark';
import ICAL from 'ical.js';
import { describe, expect, it } from 'vitest';
import { BUILT_IN_TEMPLATE } from '#core/launch/built-in-template';
import { sheetOf } from '#core/launch/sheet';
import { launchCalendar } from './icalendar';
import { launchMarkdown } from './markdown';

const AT = Date.parse('2026-12-01T08:00:00Z');
const steps = sheetOf({
  template: {
    steps: BUILT_IN_TEMPLATE.steps.map((s) =>
      s.id === 'backup' ? { ...s, title: 'Back up; [x](javascript:1) <b>,\nnow', what: 'a\\b; c,d' } : s,
    ),
  },
  conditions: new Set(['always', 'addressed', 'records']),
  kept: new Map([['accounts', { said: { by: 'Mara', at: AT } }]]),
  seen: () => undefined,
  titleOf: ({ kind }) => kind,
  plannedAt: AT,
  oldTtl: 3600,
}).map((s) => ({
  ...s,
  owner: s.id === 'backup' ? { name: 'Joss' } : null,
  text: s.id === 'records-changed' ? '```\nx' : '',
}));

describe('the calendar', () => {
  // ical.js is the reader of a mail program, and follows RFC 5545
  const read = new ICAL.Component(
    ICAL.parse(
      launchCalendar({
        id: 7,
        siteName: 'Trams, “old”',
        steps,
        ends: [{ id: 'registration', what: 'the registration ends', on: new Date('2027-08-15T09:30:00Z') }],
        at: new Date(AT),
      }),
    ) as unknown[],
  );
  const events = read.getAllSubcomponents('vevent').map((e) => new ICAL.Event(e));
  it('has one event for each step that is left to do, at its time', () => {
    const open = steps.filter((s) => !['done', 'left out', 'not applicable'].includes(s.state));
    expect(events).toHaveLength(open.length + 1);
    const backup = events.find((e) => e.uid === 'launch-7-backup@armband')!;
    expect(backup.startDate.toJSDate().getTime()).toBe(AT - 12 * 3_600_000);
    expect(backup.duration.toSeconds()).toBe(1800);
  });
  it('has what ends as a whole day', () => {
    const end = events.find((e) => e.uid === 'launch-7-end-registration@armband')!;
    expect(end.startDate.isDate).toBe(true);
    expect(end.startDate.toString()).toBe('2027-08-15');
  });
  it('gives texts back as they were', () => {
    const backup = events.find((e) => e.uid === 'launch-7-backup@armband')!;
    expect(backup.summary).toBe('Trams, “old”: Back up; [x](javascript:1) <b>,\nnow');
    expect(backup.description).toBe('The day before. a\\b; c,d');
  });
});

it('a name with line ends writes no line of its own into the calendar', () => {
  const text = launchCalendar({
    id: 7,
    siteName: 'Trams\r\nATTENDEE:mailto:x@evil.example\nX: y',
    steps,
    ends: [],
    at: new Date('2026-12-01T08:00:00Z'),
  });
  expect(text.split(/\r?\n/).filter((line) => /^(?:ATTENDEE|X):/.test(line))).toEqual([]);
});

describe('the Markdown', () => {
  const text = launchMarkdown({
    siteName: 'Trams *old*',
    when: 'Tuesday',
    moment: (at) => new Date(at).toISOString(),
    steps,
    go: { isGo: false, against: ['2 blockers <open>.'], codes: [] },
    accounts: [
      {
        kind: 'dns',
        operator: 'Gull_wing_',
        holder: 'Trams',
        access: '',
        payer: '',
        hasTransferCode: false,
        note: '',
      },
    ],
  });
  // the reference implementation of CommonMark
  const html = new HtmlRenderer().render(new Parser().parse(text));
  it('reads as headings and a list of what is done and left', () => {
    expect(html).toContain('<h1>Launch of Trams *old*</h1>');
    expect(html).toContain('<h2>A week before</h2>');
    expect(html.match(/<li>\s*(?:<p>)?\[[ x]\]/g)).toHaveLength(
      steps.filter((s) => s.state !== 'not applicable').length,
    );
    expect(html).toContain('Gull_wing_, held by Trams');
  });
  it('no text of it becomes markup', () => {
    expect(html).not.toContain('<b>');
    expect(html).not.toMatch(/href="javascript/);
    expect(html).toContain('2 blockers &lt;open&gt;.');
  });
  it('what is to be pasted stands as it is, whatever it holds', () => {
    expect(text).toContain('````\n  ```\n  x\n  ````');
  });
});
