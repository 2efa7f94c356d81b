/** The life of a fix, acceptances, attestations, and what ends by itself: over the routes, with a real MariaDB and the practice net. */
import { describe, expect, it } from 'vitest';
import { useDesk, type Line } from './desk';
import { until, type Caller } from './served';

const { mara, joss, environment, ledger, finding, history, sql, environmentOf, auditAgain, turn } = useDesk(
  '.test/fixes',
  { ARMBAND_SWEEP: '0.3' },
);

interface ListedFix {
  id: number;
  check: string;
  title: string;
  severity: string;
  state: string;
  found: string | null;
  failing: number;
  points: number;
  site: string;
  siteId: number;
  environmentId: number;
  owner: string | null;
  dueDate: string | null;
}
interface ListedFault {
  check: string;
  fixes: number;
  sites: number;
  failing: number;
  points: number;
  gates: number;
}
/** A window of the list over all sites. */
const window = async (query: string) =>
  (await mara<{ total: number; next: string | null; rows: ListedFix[] }>('GET', `/api/fixes?${query}`)).body;
const listed = async (query: string) => (await window(query)).rows;
/** All of them, a window after the other. */
async function everyFix(query = ''): Promise<ListedFix[]> {
  const rows: ListedFix[] = [];
  for (let after: string | null = ''; after !== null;) {
    const read = await window(`${query}&limit=40${after && `&after=${encodeURIComponent(after)}`}`);
    rows.push(...read.rows);
    after = read.next;
  }
  return rows;
}

interface Message {
  id: number;
  text: string;
  link: string;
  read: boolean;
}
const messages = async (who: Caller) => (await who<{ rows: Message[] }>('GET', '/api/messages')).body.rows;

describe('the life of a fix', () => {
  it('is not written again by an audit that finds the same fault at the same pages', async () => {
    const { id } = await environmentOf('Sallow Ferries', 'Live');
    const times = () =>
      sql<{ check_id: string; changed_at: Date }>(
        "SELECT check_id, changed_at FROM fix WHERE environment_id = ? AND state = 'open' ORDER BY id",
        [id],
      );
    const before = await times();
    expect(before.length).toBeGreaterThan(0);
    await auditAgain(id);
    expect(await times()).toEqual(before);
  });
  it('opens, is set to verify, is verified only by the next audit, and comes back', async () => {
    const { id } = await environmentOf('Tarn Planetarium', 'Live');
    const before = await finding(id, 'indexing.let-in');
    expect(before).toMatchObject({ outcome: 'failed', fix: { state: 'open' } });
    const fix = before.fix!.id;
    expect(
      (await mara<{ message: string }>('PATCH', `/api/fixes/${fix}`, { state: 'verified' })).status,
    ).toBe(409);
    expect(
      (
        await mara('PATCH', `/api/fixes/${fix}`, {
          state: 'in progress',
          ownerId: 2,
          dueDate: '2026-12-01',
          comment: 'looking',
        })
      ).status,
    ).toBe(200);
    await mara('PATCH', `/api/fixes/${fix}`, { state: 'to verify' });
    await auditAgain(id);
    expect((await finding(id, 'indexing.let-in')).fix!.state).toBe('open');
    await mara('PATCH', `/api/fixes/${fix}`, { state: 'to verify' });
    await turn('planetarium', 'live', 'noindex-left', false);
    await auditAgain(id);
    expect(await finding(id, 'indexing.let-in')).toMatchObject({
      outcome: 'passed',
      fix: { state: 'verified' },
    });
    await turn('planetarium', 'live', 'noindex-left', true);
    await auditAgain(id);
    expect((await finding(id, 'indexing.let-in')).fix).toMatchObject({ state: 'open', returns: 1 });
    const history = (
      await mara<{
        events: { kind: string; by: string; text: string | null }[];
        ownerId: number;
        dueDate: string;
      }>('GET', `/api/fixes/${fix}`)
    ).body;
    expect(history.events.map((e) => e.kind).reverse()).toEqual([
      'opened',
      'state',
      'owner',
      'due',
      'comment',
      'state',
      'still seen',
      'state',
      'verified',
      'came back',
    ]);
    expect(history).toMatchObject({ ownerId: 2, dueDate: '2026-12-01' });
  });
  it('a fault mended without a word is gone, and the list over all sites shows only what is open', async () => {
    const { id } = await environmentOf('Reedling Puppet Theatre', 'Live');
    expect((await finding(id, 'sharing.favicon')).fix!.state).toBe('open');
    await turn('puppets', 'live', 'no-icon', false);
    await auditAgain(id);
    expect((await finding(id, 'sharing.favicon')).fix!.state).toBe('gone');
    const open = await listed('limit=200');
    expect(open.some((f) => f.state === 'gone')).toBe(false);
    expect(new Set(open.map((f) => f.site)).size).toBeGreaterThan(5);
    const closed = await listed('closed=1&limit=200');
    expect(closed.some((f) => f.state === 'gone')).toBe(true);
    expect(closed.filter((f) => !['gone', 'verified'].includes(f.state))).toEqual([]);
  });
});

describe('fixes over all sites', () => {
  it('the gravest first, then what costs most; each says what was found', async () => {
    const rows = await listed('limit=200');
    const ranks = rows.map((r) => ['blocker', 'major', 'minor'].indexOf(r.severity));
    expect(ranks).toEqual([...ranks].sort());
    const blockers = rows.filter((r) => r.severity === 'blocker').map((r) => r.points);
    expect(blockers).toEqual([...blockers].sort((a, b) => b - a));
    expect(rows.filter((r) => r.points > 0 && !r.found)).toEqual([]);
  });
  it.each([
    [
      'words, each of which must be met',
      'words=ferries+blocker',
      (r: ListedFix) => r.site === 'Sallow Ferries',
    ],
    ['a word of what was found', 'words=NOINDEX', (r: ListedFix) => /noindex/i.test(`${r.title} ${r.found}`)],
    ['one check', 'check=sharing.image-size', (r: ListedFix) => r.check === 'sharing.image-size'],
    ['nobody’s', 'owner=nobody', (r: ListedFix) => r.owner === null],
    ['a person’s own', 'owner=2', (r: ListedFix) => r.owner?.startsWith('Joss') ?? false],
  ])('filtered by %s', async (_, query, fits) => {
    const rows = await listed(`${query}&limit=200`);
    expect(rows.length).toBeGreaterThan(0);
    expect(rows.filter((r) => !fits(r))).toEqual([]);
    expect(rows.length).toBeLessThan((await window('limit=1')).total);
  });
  it.each([
    ['signs of the index stand for nothing', 'words=%2B%22%28*', 'words='],
    ['the beginning of a word is enough', 'words=nav', 'words=navigat'],
  ])('%s', async (_, one, other) => {
    expect((await window(one)).total).toBe((await window(other)).total);
  });
  it('words that stand nowhere find nothing', async () => {
    expect(await window('words=zz_zz')).toMatchObject({ total: 0, rows: [], next: null });
  });
  it('comes in windows that neither miss nor repeat a fix', async () => {
    const { total } = await window('limit=1');
    for (const sort of ['worst', 'site', 'person', 'due']) {
      const ids = (await everyFix(`sort=${sort}`)).map((r) => r.id);
      expect(ids, sort).toHaveLength(total);
      expect(new Set(ids).size, sort).toBe(total);
    }
  });
  it.each([
    ['by site, those with blockers first and together', 'site', (r: ListedFix) => r.site],
    ['by person', 'person', (r: ListedFix) => r.owner],
  ])('%s', async (_, sort, group) => {
    const groups = (await listed(`sort=${sort}&limit=200`)).map(group);
    const runs = groups.filter((g, i) => g !== groups[i - 1]);
    expect(runs).toHaveLength(new Set(groups).size);
  });
  it('by due date, those without one last', async () => {
    const dates = (await listed('sort=due&limit=200')).map((r) => r.dueDate);
    const given = dates.filter((d) => d !== null);
    expect(given.length).toBeGreaterThan(0);
    expect(dates.slice(0, given.length)).toEqual([...given].sort());
  });
  it.each(['limit=0', 'limit=1000', 'sort=colour', 'owner=somebody', 'closed=2', 'site=x'])(
    '%s is refused',
    async (query) => {
      expect((await mara('GET', `/api/fixes?${query}`)).status).toBe(400);
    },
  );
  it('by fault: sites, what it touches, points and gates add up over its fixes', async () => {
    const faults = (await mara<ListedFault[]>('GET', '/api/fixes/faults')).body;
    const rows = await everyFix();
    expect(faults.reduce((n, f) => n + f.fixes, 0)).toBe((await window('limit=1')).total);
    for (const f of faults.slice(0, 10)) {
      const own = rows.filter((r) => r.check === f.check);
      expect(f.sites).toBe(new Set(own.map((r) => r.siteId)).size);
      expect(f.points).toBeCloseTo(
        own.reduce((n, r) => n + r.points, 0),
        6,
      );
      expect(f.failing).toBe(own.reduce((n, r) => n + r.failing, 0));
    }
    const holding = faults.map((f) => f.gates > 0);
    expect(holding).toEqual([...holding].sort((a, b) => Number(b) - Number(a)));
    expect(holding[0]).toBe(true);
  });
  it('a fault’s recipe is said once, with each environment’s own text', async () => {
    const [one] = await listed('words=records-match');
    const { status, body } = await mara<{
      steps: string;
      own: Record<string, { paste: { text: string }[] }>;
    }>('GET', `/api/fixes/recipe?check=${one!.check}&environments=${one!.environmentId}`);
    expect(status).toBe(200);
    expect(body.steps.length).toBeGreaterThan(10);
    expect(body.own[one!.environmentId]!.paste[0]!.text).toContain('192.0.2.');
    // what differs from site to site is said with each
    const closed = await listed('check=indexing.kept-out');
    const several = await mara<{ steps: string | null; own: Record<string, { steps?: string }> }>(
      'GET',
      `/api/fixes/recipe?check=indexing.kept-out&environments=${closed.map((r) => r.environmentId).join()}`,
    );
    const own = Object.values(several.body.own).filter((o) => o.steps);
    expect(own.length).toBe(several.body.steps === null ? Object.keys(several.body.own).length : 0);
    const none = '/api/fixes/recipe?check=sharing.favicon&environments=';
    expect((await mara('GET', `${none}999999`)).status).toBe(404);
    expect((await mara('GET', `${none}1;2`)).status).toBe(400);
  });
  it('many are changed at once; what cannot be is said and stops no other', async () => {
    const rows = (await listed('words=minor&limit=3')).map((r) => r.id);
    const answer = await mara<{ changed: number; refused: { id: number; reason: string }[] }>(
      'PATCH',
      '/api/fixes',
      { ids: [...rows, 999_999], ownerId: 2, dueDate: '2026-12-24', state: 'in progress' },
    );
    expect(answer.body).toMatchObject({ changed: 3, refused: [{ id: 999_999 }] });
    for (const id of rows)
      expect((await mara('GET', `/api/fixes/${id}`)).body).toMatchObject({
        ownerId: 2,
        dueDate: '2026-12-24',
        state: 'in progress',
      });
    expect((await mara('PATCH', '/api/fixes', { ids: [], state: 'open' })).status).toBe(400);
  });
});

describe('acceptances and attestations', () => {
  it('a blocker counts as accepted only once a second person has agreed, and again when taken back', async () => {
    const { id } = await environmentOf('Sallow Ferries', 'Live');
    const fix = (await finding(id, 'domain.preferred-host')).fix!.id;
    expect(
      (
        await mara('POST', `/api/fixes/${fix}/accept`, {
          reason: 'old hosting contract',
          until: '2020-01-01',
        })
      ).status,
    ).toBe(400);
    expect(
      (
        await mara<{ needsSecond: boolean }>('POST', `/api/fixes/${fix}/accept`, {
          reason: 'old hosting contract',
          until: '2027-03-01',
        })
      ).body.needsSecond,
    ).toBe(true);
    const waiting = await finding(id, 'domain.preferred-host');
    expect(waiting.accepted).toBeUndefined();
    expect((await mara('POST', `/api/acceptances/${waiting.acceptance!.id}/second`)).status).toBe(409);
    expect((await joss('POST', `/api/acceptances/${waiting.acceptance!.id}/second`)).status).toBe(200);
    expect(await finding(id, 'domain.preferred-host')).toMatchObject({
      accepted: true,
      fix: { state: 'accepted' },
    });
    expect((await mara('POST', `/api/fixes/${fix}/withdraw`)).status).toBe(200);
    expect((await finding(id, 'domain.preferred-host')).fix!.state).toBe('open');
  });
  it('attesting decides a manual check at once', async () => {
    const { id } = await environmentOf('Lifeboat Loft', 'Staging');
    expect((await finding(id, 'delivery.client-approval')).outcome).toBe('untested');
    expect(
      (await mara('POST', `/api/environments/${id}/attest`, { check: 'https.hsts', done: true })).status,
    ).toBe(400);
    await mara('POST', `/api/environments/${id}/attest`, {
      check: 'delivery.client-approval',
      done: true,
      note: 'letter of Monday',
    });
    expect(await finding(id, 'delivery.client-approval')).toMatchObject({
      outcome: 'passed',
      found: expect.stringContaining('Mara Quill') as string,
    });
    await mara('POST', `/api/environments/${id}/attest`, { check: 'delivery.client-approval', done: false });
    expect(await finding(id, 'delivery.client-approval')).toMatchObject({
      outcome: 'failed',
      fix: { state: 'open' },
    });
  });
  it('one from before findings had codes is carried over by its sentences; what is not found again is told', async () => {
    const { id } = await environment('Saltmarsh Seed Library');
    const many = (await ledger(id)).lines.filter((f) => f.outcome === 'failed' && f.fix && !f.accepted);
    let fault: Line | undefined;
    for (const line of many) {
      const seen = await finding(id, line.check);
      if (line.severity !== 'blocker' && seen.places.filter((p) => p.outcome === 'failed').length > 1)
        fault = line;
    }
    const { check, fix } = fault!;
    await mara('POST', `/api/fixes/${fix!.id}/accept`, { reason: 'agreed', until: '2099-01-01' });
    const [row] = await sql<{ id: number; places: string }>(
      'SELECT id, places FROM acceptance WHERE environment_id = ? AND check_id = ? AND withdrawn_at IS NULL',
      [id, check],
    );
    const places = JSON.parse(row!.places) as { place: string; code: string }[];
    expect(places.every((p) => p.code)).toBe(true);
    const sentenceAt = new Map((await finding(id, check)).places.map((p) => [p.place, p.found]));
    // as version 021 kept it, and one place of which nobody knows what was found there
    const old = places.map(({ place }, i) => ({
      place,
      found: i === places.length - 1 ? 'in words of long ago' : (sentenceAt.get(place) ?? ''),
    }));
    const setOld = (kept: object[]) =>
      sql('UPDATE acceptance SET by_code = 0, places = ? WHERE id = ?', [JSON.stringify(kept), row!.id]);
    await setOld(
      old.slice(0, -1).concat({ place: old.at(-1)!.place, found: sentenceAt.get(old.at(-1)!.place) ?? '' }),
    );
    await auditAgain(id);
    expect((await finding(id, check)).accepted).toBe(true);
    const [carried] = await sql<{ places: string; by_code: number }>(
      'SELECT places, by_code FROM acceptance WHERE id = ?',
      [row!.id],
    );
    expect(carried!.by_code).toBe(1);
    expect(JSON.parse(carried!.places)).toEqual(places);
    await setOld(old);
    await auditAgain(id);
    expect((await finding(id, check)).accepted ?? false).toBe(false);
    const list = await messages(mara);
    expect(list.some((m) => m.link.includes(check) && /no longer found as accepted/.test(m.text))).toBe(true);
  });
});

describe('what ends by itself', () => {
  it('an acceptance that ends counts again, and the one who asked is told', async () => {
    const { id } = await environment('Saltmarsh Seed Library');
    const fault = (await ledger(id)).lines.find(
      (f) => f.outcome === 'failed' && f.severity !== 'blocker' && !f.accepted,
    )!;
    const soon = new Date(Date.now() + 5 * 86_400_000).toISOString().slice(0, 10);
    expect(
      (
        await mara('POST', `/api/fixes/${fault.fix!.id}/accept`, {
          reason: 'the client wants it so',
          until: soon,
        })
      ).status,
    ).toBe(200);
    expect((await finding(id, fault.check)).accepted).toBe(true);
    await sql('UPDATE acceptance SET until = ? WHERE environment_id = ? AND check_id = ?', [
      '2026-01-01',
      id,
      fault.check,
    ]);
    const told = await until(
      () => messages(mara),
      (list) => list.some((m) => m.link.includes(fault.check)),
    );
    expect(told[0]).toMatchObject({
      read: false,
      text: expect.stringMatching(/was left on purpose until 2026-01-01\. It counts again\.$/) as string,
      link: expect.stringContaining(`environment=${id}&check=${fault.check}`) as string,
    });
    const again = await finding(id, fault.check);
    expect(again.accepted ?? false).toBe(false);
    expect(again.fix!.state).toBe('open');
    expect((await history(id))[0]).toMatchObject({
      cause: 'time',
      reasons: expect.arrayContaining(['something ended']) as string[],
    });
    await mara('POST', '/api/messages', { upTo: told[0]!.id });
    expect((await messages(mara)).every((m) => m.read)).toBe(true);
    expect((await messages(joss)).some((m) => m.link.includes(fault.check))).toBe(false);
  });
  it('an attestation that ends is untested again, and whoever vouched is told once', async () => {
    const { id } = await environment('Saltmarsh Seed Library');
    await joss('POST', `/api/environments/${id}/attest`, {
      check: 'delivery.backup',
      done: true,
      goodForDays: 3,
    });
    await sql('UPDATE attestation SET good_until = ? WHERE environment_id = ? AND check_id = ?', [
      '2026-01-01',
      id,
      'delivery.backup',
    ]);
    await until(
      () => messages(joss),
      (list) => list.some((m) => m.text.includes('good until 2026-01-01')),
    );
    expect((await finding(id, 'delivery.backup')).outcome).toBe('untested');
    const { length } = await messages(joss);
    // another sweep has passed when something later was told
    await joss('POST', `/api/environments/${id}/attest`, {
      check: 'delivery.upkeep',
      done: true,
      goodForDays: 3,
    });
    await sql('UPDATE attestation SET good_until = ? WHERE environment_id = ? AND check_id = ?', [
      '2026-01-02',
      id,
      'delivery.upkeep',
    ]);
    await until(
      () => messages(joss),
      (list) => list.some((m) => m.text.includes('good until 2026-01-02')),
    );
    expect(await messages(joss)).toHaveLength(length + 1);
  });
});

describe('views that are kept', () => {
  it('each person has their own, a name once; another’s is not there', async () => {
    const view = { screen: 'fixes', name: 'Our blockers', query: 'words=blocker&view=site' };
    const views = async (who: typeof mara) =>
      (await who<{ id: number; name: string; query: string }[]>('GET', '/api/views?screen=fixes')).body;
    expect((await mara('POST', '/api/views', view)).status).toBe(200);
    await mara('POST', '/api/views', { ...view, query: 'words=major' });
    const [kept, ...more] = await views(mara);
    expect([kept!.name, kept!.query, more.length]).toEqual(['Our blockers', 'words=major', 0]);
    expect(await views(joss)).toEqual([]);
    expect((await joss('DELETE', `/api/views/${kept!.id}`)).status).toBe(404);
    expect((await mara('DELETE', `/api/views/${kept!.id}`)).status).toBe(200);
    expect(await views(mara)).toEqual([]);
    expect((await mara('POST', '/api/views', { ...view, screen: 'moon' })).status).toBe(400);
  });
});
