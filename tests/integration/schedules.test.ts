/** Schedules, and a night of the demo in two minutes: turns, faults that come overnight, messages once each. */
import { describe, expect, it } from 'vitest';
import { useDesk } from './desk';
import { until } from './served';

const { mara, joss, turn, environmentOf, settled } = useDesk('.test/schedules', { ARMBAND_NIGHT: '1' });

interface Schedule {
  id: number;
  name: string;
  of: string;
  isOn: boolean;
  parts: string[];
  checklist: string | null;
}
interface Tonight {
  rate: number;
  schedules: {
    id: number;
    planned: number;
    done: number;
    covered: number;
    couldNot: number;
    takesMs: number;
    why: { why: string; count: number }[];
  }[];
  couldNot: { site: string; why: string }[];
}
const list = async (): Promise<Schedule[]> => (await mara<Schedule[]>('GET', '/api/schedules')).body;
const tonight = async (): Promise<Tonight> => (await mara<Tonight>('GET', '/api/schedules/tonight')).body;
const NEW = {
  name: 'Ours',
  ofKind: 'all',
  ofTarget: '',
  parts: ['dns'],
  checklistId: null,
  every: 'day',
  weekday: 1,
  from: '00:00',
  to: '23:59',
  timeZone: 'UTC',
  isOn: true,
};

describe('schedules', () => {
  it('propose three, switched off', async () => {
    expect((await list()).map((s) => [s.name, s.of, s.isOn, s.parts, s.checklist])).toEqual([
      ['Full list, weekly', 'sites that are launched', false, [], null],
      ['Quick list, nightly', 'sites that are launched', false, [], 'Quick launch'],
      ['Certificates and records, daily', 'sites that are launched', false, ['dns', 'tls'], null],
    ]);
  });
  it.each([
    ['a time that is none', { from: '25:00' }],
    ['no length', { from: '01:00', to: '01:00' }],
    ['an unknown zone', { timeZone: 'Nowhere/Land' }],
    ['retired sites', { ofKind: 'stage', ofTarget: 'retired' }],
    ['a checklist that is not there', { checklistId: 9999 }],
    ['an unknown part', { parts: ['heart'] }],
    ['half a quiet time', { notFrom: '02:00' }],
    ['parts, with none chosen', { what: 'parts', parts: [] }],
  ])('refuse %s', async (_, wrong) => {
    expect((await mara('POST', '/api/schedules', { ...NEW, ...wrong })).status).toBe(400);
  });
  it('are added, planned over what is left of the day, changed, and taken away', async () => {
    const { id } = await environmentOf('Tarn Planetarium', 'Live');
    const client = (await mara<{ rows: { id: number }[] }>('GET', '/api/clients?words=Tarn')).body.rows[0]!
      .id;
    const made = await mara<{ id: number }>('POST', '/api/schedules', {
      ...NEW,
      ofKind: 'client',
      ofTarget: String(client),
      pageLimit: 3,
    });
    expect(made.status).toBe(200);
    expect((await joss('POST', '/api/schedules', NEW)).status).toBe(409);
    const mine = async () => (await tonight()).schedules.find((s) => s.id === made.body.id);
    const planned = await until(mine, Boolean);
    expect(planned!.planned + planned!.done).toBe(2);
    expect((await list()).find((s) => s.id === made.body.id)).toMatchObject({ pageLimit: 3 });
    expect(planned!.why).toEqual([]);
    expect(
      (
        await mara('PUT', `/api/schedules/${made.body.id}`, {
          ...NEW,
          isOn: false,
          ofKind: 'site',
          ofTarget: '1',
        })
      ).status,
    ).toBe(200);
    await until(mine, (s) => !s || s.planned === 0);
    expect((await mara('DELETE', `/api/schedules/${made.body.id}`)).status).toBe(200);
    expect((await mara('DELETE', `/api/schedules/${made.body.id}`)).status).toBe(404);
    expect(id).toBeGreaterThan(0);
  });
});

describe('a night in two minutes', () => {
  it('audits by itself, finds what went wrong, and tells each thing once', async () => {
    const before = (await mara<{ rows: unknown[] }>('GET', '/api/messages')).body.rows.length;
    expect((await mara('POST', '/api/practice-night', { on: true })).status).toBe(200);
    expect((await tonight()).rate).toBe(360);
    const full = (await list())[0]!;
    const messages = async () =>
      (await mara<{ rows: { text: string; link: string }[] }>('GET', '/api/messages')).body.rows.map(
        (m) => m.text,
      );
    const isDone = (texts: string[]): boolean =>
      texts.some((t) => t.includes('noindex')) && texts.some((t) => t.startsWith('Ends soon'));
    const texts = await until(messages, isDone, 300_000);
    const told = texts.slice(0, texts.length - before);
    expect(
      told.filter((t) =>
        /^Gate closed: Live pages carry noindex\. Reedling Puppet Theatre, Live: .*noindex/.test(t),
      ),
    ).toHaveLength(1);
    // two sites, one authority, one message
    expect(told.filter((t) => t.startsWith('Ends soon'))).toEqual([
      expect.stringMatching(
        /^Ends soon on 2 sites, one cause: issuer .*: Certificate ends soon\. .*(?:Quay Chess Circle|Firth Bee Keepers), Live: .* left/,
      ),
    ]);
    expect(new Set(told).size).toBe(told.length);
    const ofFull = (t: Tonight) => t.schedules.find((s) => s.id === full.id)!;
    const night = await until(tonight, (t) => ofFull(t).done > 20);
    await settled();
    // what the full list looks at is not looked at again by the others in the same night
    expect(night.schedules.filter((s) => s.id !== full.id).some((s) => s.covered > 0)).toBe(true);
    expect((await mara('POST', '/api/practice-night', { on: false })).status).toBe(200);
    expect((await tonight()).rate).toBe(1);
    // another look tells nothing anew
    const count = (await messages()).length;
    await turn('puppets', 'live', 'noindex-left', false);
    expect((await messages()).length).toBe(count);
  });
});
