/** A launch by the run sheet: two people at it, evidence that proves steps, the cut-over watched over a restart. */
import { beforeAll, describe, expect, it } from 'vitest';
import type { SiteAccount } from '#core/facts/launch';
import type { ContactLine } from '../../server/sites/contacts';
import type { FormerAddresses } from '../../server/launch/former';
import type { ComparedOperator } from '../../server/launch/new-operator';
import type { LaunchLog } from '../../server/launch/log';
import type { Sheet, SheetStep } from '../../server/launch/sheet';
import type { WatchShown } from '../../server/launch/watch';
import type { SiteCutOver } from '../../server/launch/cut-over';
import { useDesk } from './desk';
import { until } from './served';

const desk = useDesk('.test/launches', { ARMBAND_RENDER: 'asked' });
const { mara, joss, site, settled, turn, served } = desk;

const NAME = 'Firth Tram Society';
const SLUG = 'trams';
let siteId: number;
let launchId: number;

const sheet = async (): Promise<Sheet> => (await mara<Sheet>('GET', `/api/sites/${siteId}/sheet`)).body;
const step = async (id: string): Promise<SheetStep> => (await sheet()).steps.find((s) => s.id === id)!;
const act = (id: string, body: object, who = mara) =>
  who('POST', `/api/launches/${launchId}/steps/${id}`, body);
const plan = async (): Promise<SiteCutOver> =>
  (await mara<SiteCutOver>('GET', `/api/sites/${siteId}/cut-over`)).body;
const change = (what: object) =>
  mara<{ message?: string }>('POST', '/api/practice-desk', { site: SLUG, change: what });
const zone = async (): Promise<string> =>
  (await mara<{ zone: string }>('GET', `/api/practice-desk?site=${SLUG}`)).body.zone;
const log = async (): Promise<LaunchLog> =>
  (await mara<LaunchLog[]>('GET', `/api/sites/${siteId}/launches`)).body[0]!;
const watched = async (): Promise<WatchShown> =>
  (await mara<WatchShown>('GET', `/api/sites/${siteId}/watch`)).body;
const look = async (id: string): Promise<void> => {
  expect((await mara('POST', `/api/launches/${launchId}/look`, { step: id })).status).toBe(200);
  await settled();
};
const account = (kind: string, operator: string): SiteAccount =>
  ({ kind, operator, holder: '', access: '', payer: '', hasTransferCode: false, note: '' }) as SiteAccount;

beforeAll(async () => {
  siteId = (await site(NAME)).id;
});

describe('the run sheet', () => {
  it('is made once from the site’s facts', async () => {
    expect(await sheet()).toBeFalsy();
    const path = `/api/sites/${siteId}/sheet`;
    expect((await mara('POST', path, { plannedAt: 'soon' })).status).toBe(400);
    const { status, body } = await mara<{ id: number }>('POST', path, { plannedAt: '2027-01-04T08:00:00Z' });
    expect(status).toBe(200);
    launchId = body.id;
    expect((await joss('POST', path, { plannedAt: '2027-01-04T08:00:00Z' })).status).toBe(409);
    const { steps, launch } = await sheet();
    const state = (id: string) => steps.find((s) => s.id === id)!.state;
    expect(launch).toMatchObject({ number: 1, oldTtl: 3600, begunBy: 'Mara Quill' });
    expect(state('records-changed')).toBe('waits');
    expect(state('forward-set')).toBe('not applicable');
    expect(state('name-servers-moved')).toBe('not applicable');
    expect(state('former-addresses')).toBe('to do');
    expect(steps.find((s) => s.id === 'records-changed')!.text).toContain('firth-trams.example.');
    expect((await sheet()).back).toBe('firth-trams.example. 3600 IN A 192.0.2.77');
    expect(steps.find((s) => s.id === 'records-changed')!.plannedAt).toBe(Date.parse('2027-01-04T08:00:00Z'));
  });
  it('moves with the launch', async () => {
    expect(
      (await mara('PATCH', `/api/launches/${launchId}`, { plannedAt: '2027-01-05T08:00:00Z' })).status,
    ).toBe(200);
    expect((await step('ttl-lowered')).plannedAt).toBe(Date.parse('2027-01-02T08:00:00Z'));
  });
  it('two people tick at once, and neither is lost', async () => {
    const ids = ['backup', 'forms', 'default-accounts', 'plan-fits', 'former-addresses', 'mail-carried'];
    const answers = await Promise.all(ids.map((id, i) => act(id, { act: 'done' }, i % 2 ? joss : mara)));
    expect(answers.map((a) => a.status)).toEqual(ids.map(() => 200));
    const { steps } = await sheet();
    expect(ids.map((id) => steps.find((s) => s.id === id)!.said!.by)).toEqual(
      ids.map((_, i) => (i % 2 ? 'Joss Teal' : 'Mara Quill')),
    );
    expect((await log()).events.filter((e) => e.kind === 'done')).toHaveLength(ids.length);
  });
  it('a step is not done after all, left out with a reason, and taken up again', async () => {
    await act('default-accounts', { act: 'undo' });
    expect((await step('default-accounts')).state).toBe('to do');
    expect((await act('client-warned', { act: 'leave out', text: ' ' })).status).toBe(400);
    await act('client-warned', { act: 'leave out', text: 'They do it themselves.' });
    expect(await step('client-warned')).toMatchObject({
      state: 'left out',
      leftOut: { by: 'Mara Quill', reason: 'They do it themselves.' },
    });
    await act('client-warned', { act: 'take up' });
    expect((await step('client-warned')).state).toBe('to do');
    expect((await act('nowhere', { act: 'done' })).status).toBe(404);
    expect((await act('backup', { act: 'explode' })).status).toBe(400);
  });
  it('is owned by somebody of the agency, of this client, or outside', async () => {
    const { clientId } = (await mara<{ clientId: number }>('GET', `/api/sites/${siteId}/report/shown`)).body;
    const contact = async (client: number) =>
      (
        await mara<ContactLine>('POST', `/api/clients/${client}/contacts`, {
          name: 'Orrin Gale',
          email: 'orrin@trams.example',
        })
      ).body.id;
    await act('records-changed', { act: 'own', contactId: await contact(clientId) });
    expect((await step('records-changed')).owner).toMatchObject({ kind: 'client', name: 'Orrin Gale' });
    const others = (await mara<{ rows: { id: number }[] }>('GET', '/api/clients?words=Tarn')).body.rows[0]!
      .id;
    expect((await act('backup', { act: 'own', contactId: await contact(others) })).status).toBe(404);
    expect((await act('backup', { act: 'own', ownerId: 99_999 })).status).toBe(400);
    await act('backup', { act: 'own', outside: 'Ida next door' });
    expect((await step('backup')).owner).toEqual({ kind: 'outside', id: null, name: 'Ida next door' });
  });
  it('accounts are proven once registrar, operator and host are written down', async () => {
    const path = `/api/sites/${siteId}/accounts`;
    expect((await step('accounts')).state).toBe('to do');
    for (const kind of ['registrar', 'dns', 'host']) await mara('PUT', path, account(kind, 'Gullwing'));
    expect(await step('accounts')).toMatchObject({ state: 'done', isProven: true });
    await until(log, (l) => l.events.some((e) => e.kind === 'proven' && /Accounts/.test(e.step ?? '')));
    // without an operator it is taken away, and the step does not hold any more
    await mara('PUT', path, account('host', ''));
    await until(log, (l) => l.events.some((e) => e.kind === 'went back' && /Accounts/.test(e.step ?? '')));
    expect((await step('accounts')).isProven).toBe(false);
    await mara('PUT', path, account('host', 'Quayside'));
    expect((await mara('PUT', path, account('safe', 'x'))).status).toBe(400);
  });
  it('is passed on as Markdown and as a calendar', async () => {
    const file = (as: string) => mara<string>('GET', `/api/launches/${launchId}/file?as=${as}`);
    const markdown = await file('markdown');
    expect(markdown.headers.get('content-disposition')).toMatch(/firth-tram-society-launch\.md/);
    expect(markdown.body).toMatch(/^# Launch of Firth Tram Society/);
    expect((await file('icalendar')).body).toMatch(/^BEGIN:VCALENDAR/);
    expect((await file('pdf')).status).toBe(400);
  });
});

describe('former addresses', () => {
  it('are harvested while the former site runs, and mapped', async () => {
    const path = `/api/sites/${siteId}/former`;
    const { body } = await mara<FormerAddresses>('GET', path);
    const to = new Map(body.list.map((p) => [p.from, p.to]));
    expect(body.at).not.toBeNull();
    expect(to.get('/contact.html')).toBe('/contact/');
    expect(to.get('/history.html')).toBe('/about/');
    expect(to.get('/guestbook.html')).toBeNull();
    expect(body.pages.map((p) => p.path)).toContain('/visit/');
  });
});

describe('name servers that move', () => {
  it('are compared name by name before anything is moved', async () => {
    const { id } = await site('Sallow Choir');
    const { body: moving } = await mara<SiteCutOver>('GET', `/api/sites/${id}/cut-over`);
    expect(moving.move).toMatchObject({
      to: ['ns1.registry.example', 'ns2.registry.example'],
      nsTtl: 86_400,
    });
    const compare = async () =>
      (await mara<ComparedOperator>('POST', `/api/sites/${id}/new-operator`)).body.servers;
    const before = await compare();
    expect(before.map((s) => s.name)).toEqual(moving.move!.to);
    // the new operator has the zone as it is today, without what is to change
    const differs = new Set(before.flatMap((s) => s.differs.map((d) => `${d.type} ${d.name}`)));
    expect(differs).toContain('A sallow-choir.example');
    const zone = (await mara<{ zone: string }>('GET', '/api/practice-desk?site=choir')).body.zone;
    const wanted = / A (\S+)/.exec(moving.wanted)![1]!;
    const changed = zone.replace(/^(sallow-choir\.example\. \d+ IN A) \S+/m, `$1 ${wanted}`);
    await mara('POST', '/api/practice-desk', { site: 'choir', change: { zone: changed } });
    const after = new Set((await compare()).flatMap((s) => s.differs.map((d) => `${d.type} ${d.name}`)));
    expect(after).not.toContain('A sallow-choir.example');
    expect((await mara('POST', `/api/sites/${siteId}/new-operator`)).status).toBe(400);
  });
});

describe('going', () => {
  it('anyway takes a reason and a second person; the stage waits for it', async () => {
    const go = (who: typeof mara, input: object = {}) =>
      who<{ went: boolean; message: string }>('POST', `/api/launches/${launchId}/go`, input);
    expect((await sheet()).go.isGo).toBe(false);
    expect((await mara('PATCH', `/api/sites/${siteId}`, { stage: 'launched' })).status).toBe(409);
    const refused = await go(mara);
    expect(refused.status).toBe(400);
    expect(refused.body.message).toMatch(/is against it/);
    // two who ask at once: one is asked, and the other hears of it
    const reason = 'The society’s day is fixed.';
    const { codes } = (await sheet()).go;
    const asked = await Promise.all([go(mara, { reason }), go(joss, { reason: 'So it is.' })]);
    expect(asked.map((a) => a.status).sort()).toEqual([200, 409]);
    const isMara = asked[0].status === 200;
    const [first, second] = isMara ? [mara, joss] : [joss, mara];
    const { at, by } = (await sheet()).launch.anyway!;
    expect(by).toBe(isMara ? 'Mara Quill' : 'Joss Teal');
    expect((await go(first)).body.message).toMatch(/somebody else has to agree/);
    expect((await go(first, { agreesTo: at })).status).toBe(409);
    // agreed to what was asked then, and not to what the screen did not show
    expect((await go(second, { agreesTo: '2026-01-01T00:00:00.000Z', seen: codes })).status).toBe(409);
    const unseen = await go(second, { agreesTo: at, seen: codes.slice(1) });
    expect([unseen.status, unseen.body.message]).toEqual([
      409,
      expect.stringMatching(/has changed since this was shown/) as string,
    ]);
    const agreed = await Promise.all([
      go(second, { agreesTo: at, seen: codes }),
      go(second, { agreesTo: at, seen: codes }),
    ]);
    expect(agreed.map((a) => a.status).sort()).toEqual([200, 409]);
    const { launch } = await sheet();
    const names = isMara ? 'Mara Quill and Joss Teal' : 'Joss Teal and Mara Quill';
    expect(launch).toMatchObject({ wentBy: names, anyway: { by } });
    expect(launch.anyway!.against.length).toBeGreaterThan(0);
    expect((await go(joss)).status).toBe(409);
  });
});

describe('the cut-over, watched', () => {
  it('lowered TTLs are proven by looking, and say from when on they help', async () => {
    await change({ zone: (await zone()).replace(/^(\S+) \d+ IN (A|CNAME) /gm, '$1 300 IN $2 ') });
    await act('ttl-lowered', { act: 'done' });
    await look('ttl-lowered');
    const { doneAt } = await step('ttl-lowered');
    expect((await step('records-changed')).notBefore).toBe(doneAt! + 3_600_000);
  });
  it('set at one end only is named, the way back is taken, and in the end it holds, over a restart', async () => {
    await turn(SLUG, 'live', 'on-hold', false);
    const before = await zone();
    const path = `/api/sites/${siteId}/watch`;
    expect((await mara('POST', path)).status).toBe(200);
    expect((await joss('POST', path)).status).toBe(409);
    const first = await until(watched, (w) => w.looks > 0);
    expect(first.standing).toMatchObject({ verdict: 'waiting' });
    expect(first.standing!.reasons[0]).toMatch(/^Not changed at the DNS operator/);

    // the wrong turn: the operator has it, the host was not told
    const { wanted } = await plan();
    const address = / A (\S+)/.exec(wanted)![1]!;
    const moved = before.replace(/^(firth-trams\.example\. \d+ IN A) \S+/m, `$1 ${address}`);
    expect((await change({ refuses: true })).status).toBe(200);
    expect((await change({ zone: moved })).body.message).toMatch(/refuses/);
    await change({ refuses: false });
    await change({ zone: moved });
    const lookAgain = async (good: (w: WatchShown) => boolean): Promise<WatchShown> =>
      until(async () => {
        await mara('POST', `/api/watches/${first.id}/look`);
        return watched();
      }, good);
    const astray = await lookAgain((w) => /not told to the host/.test(w.standing?.reasons.join(' ') ?? ''));
    expect(
      astray.standing!.subjects.filter((s) => s.kind === 'authority').every((s) => s.state === 'new'),
    ).toBe(true);

    // the way back
    await change({ zone: before });
    await lookAgain((w) => /^Not changed at the DNS operator/.test(w.standing?.reasons.join(' ') ?? ''));

    // both ends, and a restart in the middle
    await change({ hostTold: true });
    await change({ zone: moved });
    await served.stop();
    await served.again();
    await desk.signIn();
    expect((await watched()).endedAt).toBeNull();
    // two days in a minute: the caches let go, the one that breaks the rules too
    expect((await mara('POST', '/api/practice-clock', { rate: 2880 })).status).toBe(200);
    const held = await until(watched, (w) => w.standing?.verdict === 'holds');
    await mara('POST', '/api/practice-clock', { rate: 1 });
    expect(held.looks).toBeGreaterThan(first.looks);
    const authorities = held.events.filter((e) => e.subject === 'authority ns1.registry.example');
    expect(authorities.map((e) => e.state)).toEqual(['old', 'new', 'old', 'new']);
    const { body: messages } = await mara<{ rows: { text: string }[] }>('GET', '/api/messages');
    expect(messages.rows.filter((m) => /holds everywhere/.test(m.text))).toHaveLength(1);

    // a certificate that is trusted, and for another name, is a certificate error for every visitor
    await turn(SLUG, 'live', 'wrong-name', true);
    const wrong = await lookAgain((w) => w.standing?.verdict === 'turned back');
    expect(wrong.standing!.reasons).toEqual([
      expect.stringMatching(/^No valid certificate for .*: the certificate is only for /),
    ]);
    await turn(SLUG, 'live', 'wrong-name', false);
    await lookAgain((w) => w.standing?.verdict === 'holds');
  });
  it('the records are proven by looking, then the stage, and the log has it all', async () => {
    await act('host-told', { act: 'done' });
    await act('client-yes', { act: 'leave out', text: 'Said by telephone.' });
    await look('records-changed');
    expect(await step('records-changed')).toMatchObject({ state: 'done', isProven: true });
    // the way back is still at hand, once the change is made
    expect((await sheet()).back).toMatch(/^firth-trams\.example\. \d+ IN A 192\.0\.2\.77$/);
    expect((await plan()).kept).toBe((await sheet()).back);
    expect((await mara('PATCH', `/api/sites/${siteId}`, { stage: 'launched' })).status).toBe(200);
    await until(
      () => step('set-launched'),
      (s) => s.state === 'done',
    );
    expect(
      await until(
        () => step('certificate'),
        (s) => s.state === 'done',
      ),
    ).toMatchObject({ isProven: true });
    expect((await step('let-in')).state).toBe('done');
    expect((await step('holds')).state).toBe('done');

    const end = { how: 'done', learnt: 'Tell the host first.' };
    expect((await mara('POST', `/api/launches/${launchId}/end`, end)).status).toBe(200);
    expect((await act('backup', { act: 'done' })).status).toBe(409);
    expect(await sheet()).toBeFalsy();
    expect(await log()).toMatchObject({
      endedHow: 'done',
      learnt: 'Tell the host first.',
      wentBy: 'Mara Quill and Joss Teal',
    });
    const { body } = await mara<{
      launches: number;
      anyway: number;
      steps: { step: string; wentBack: number }[];
    }>('GET', '/api/launches/statistics');
    expect(body).toMatchObject({ launches: 1, anyway: 1 });
    expect(body.steps.find((s) => s.step === 'accounts')).toMatchObject({ wentBack: 1 });
  });
});

describe('the run sheet of a domain that forwards', () => {
  it('asks for no new address, and has no old one: a person’s word does', async () => {
    const { id } = await site('Quay Chess Circle');
    const path = `/api/sites/${id}/sheet`;
    const begun = await mara<{ id: number }>('POST', path, { plannedAt: '2027-02-01T08:00:00Z' });
    const at = async (stepId: string): Promise<SheetStep> =>
      (await mara<Sheet>('GET', path)).body.steps.find((s) => s.id === stepId)!;
    expect((await at('host-told')).proofs).toMatchObject([{ kind: 'told', outcome: 'inapplicable' }]);
    await mara('POST', `/api/launches/${begun.body.id}/steps/host-told`, { act: 'done' });
    expect(await at('host-told')).toMatchObject({ state: 'done', isProven: false });
  });
});

describe('the agency’s run sheet', () => {
  const TEMPLATE = '/api/launch-template';
  it('is changed in versions; of two who change the same one the second is told', async () => {
    const { version, template } = (
      await mara<{ version: number; template: { steps: object[] } }>('GET', TEMPLATE)
    ).body;
    expect(version).toBe(0);
    const steps = template.steps.slice(0, 3).map((s) => ({ ...s, after: [] }));
    expect((await mara('PUT', `${TEMPLATE}?from=0`, { steps: [...steps, steps[0]] })).status).toBe(400);
    expect((await mara('PUT', TEMPLATE, { steps })).status).toBe(400);
    expect((await mara('PUT', `${TEMPLATE}?from=0`, { steps })).body).toEqual({ version: 1 });
    expect((await joss('PUT', `${TEMPLATE}?from=0`, { steps: steps.slice(1) })).status).toBe(409);
    expect((await mara<{ rows: object[] }>('GET', `${TEMPLATE}/versions`)).body.rows).toHaveLength(1);
    // launches that are begun from now on have it
    const other = (await site('Ebb Wool Mill')).id;
    await mara('POST', `/api/sites/${other}/sheet`, { plannedAt: '2027-02-01T08:00:00Z' });
    expect((await mara<Sheet>('GET', `/api/sites/${other}/sheet`)).body.steps).toHaveLength(3);
  });
});
