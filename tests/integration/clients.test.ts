/** Shown to the client: contacts, reports, share links that open nothing else, remarks, and a yes. */
import { createHash } from 'node:crypto';
import { PDFDocument } from 'pdf-lib';
import { beforeAll, describe, expect, it } from 'vitest';
import type { Report } from '#core/report/report';
import { ROUTES } from '../../server/platform/http/rights';
import type { ApprovalLine } from '../../server/reports/approvals';
import type { ContactLine } from '../../server/sites/contacts';
import type { Edition } from '../../server/reports/composing';
import type { RemarkLine } from '../../server/reports/remarks';
import type { LaunchStanding } from '../../server/launch/standing';
import type { SiteCutOver } from '../../server/launch/cut-over';
import type { Shared } from '../../server/reports/shared';
import { useDesk } from './desk';
import type { Caller } from './served';

const desk = useDesk('.test/clients', { ARMBAND_RENDER: 'asked' });
const { mara, joss, site, sql, caller, turn, auditAgain, finding, settled } = desk;

const NAME = 'Lifeboat Loft';
const CHECK = 'delivery.client-approval';
let siteId: number;
let clientId: number;
let staging: number;
let live: number;

interface LinkLine {
  id: number;
  contactId: number;
  opened: number;
  lastOpened: string | null;
  state: string;
  hasPassphrase: boolean;
}
interface Shown {
  clientId: number;
  editions: { id: number; number: number; auditId: number }[];
  contacts: ContactLine[];
  links: LinkLine[];
  remarks: RemarkLine[];
  approvals: ApprovalLine[];
}
const shown = async (): Promise<Shown> =>
  (await mara<Shown>('GET', `/api/sites/${siteId}/report/shown`)).body;

/** A link that was opened in a browser of its own. */
interface Guest {
  secret: string;
  cookie: string;
  ask: Caller;
}
async function openedLink(contactId: number, passphrase?: string): Promise<Guest> {
  const made = { contactId, days: 30, ...(passphrase ? { passphrase } : {}) };
  const { body } = await mara<{ secret: string }>('POST', `/api/sites/${siteId}/share-links`, made);
  const base = `/api/shared/${body.secret}`;
  const { headers, status } = await caller('')('POST', `${base}/open`, passphrase ? { passphrase } : {});
  expect(status).toBe(200);
  const cookie = headers.getSetCookie()[0]!.split(';')[0]!;
  const ask = caller(cookie);
  return { secret: body.secret, cookie, ask: (method, path, ...rest) => ask(method, base + path, ...rest) };
}
const publish = async (environmentId: number): Promise<Edition> => {
  const { body } = await mara<{ id: number }>('POST', `/api/sites/${siteId}/report/publish`, {
    environmentId,
  });
  return (await mara<Edition>('GET', `/api/reports/${body.id}`)).body;
};
const newContact = async (name: string, email: string): Promise<number> =>
  (await mara<ContactLine>('POST', `/api/clients/${clientId}/contacts`, { name, email })).body.id;

beforeAll(async () => {
  const { id, environments } = await site(NAME);
  siteId = id;
  staging = environments.find((e) => e.name === 'Staging')!.id;
  live = environments.find((e) => e.name === 'Live')!.id;
  clientId = (await shown()).clientId;
});

describe('contacts', () => {
  it('are of a client, each address once, and come back when they are added again', async () => {
    const path = `/api/clients/${clientId}/contacts`;
    const ida = { name: 'Ida Fenn', email: 'Ida@Loft.example', role: 'treasurer' };
    const { body } = await mara<ContactLine>('POST', path, ida);
    expect(body).toMatchObject({ name: 'Ida Fenn', email: 'ida@loft.example', role: 'treasurer' });
    expect((await mara('POST', path, { ...ida, name: 'Another' })).status).toBe(409);
    expect((await mara('POST', path, { name: ' ', email: 'x@y.example' })).status).toBe(400);
    expect((await mara('POST', path, { name: 'X', email: 'no address' })).status).toBe(400);
    expect((await mara('PUT', `/api/contacts/${body.id}`, { ...ida, name: 'Ida Fenn-Moss' })).status).toBe(
      200,
    );
    expect((await mara('DELETE', `/api/contacts/${body.id}`)).status).toBe(200);
    expect((await mara<ContactLine[]>('GET', path)).body).toEqual([]);
    expect((await mara<ContactLine>('POST', path, ida)).body.id).toBe(body.id);
    expect((await mara('POST', '/api/clients/999999/contacts', ida)).status).toBe(404);
    await mara('DELETE', `/api/contacts/${body.id}`);
  });
  it('own a fix in place of somebody of the agency, and are found by that', async () => {
    const id = await newContact('Tam Rill', 'tam@loft.example');
    const { body: fixes } = await mara<{ rows: { id: number }[] }>('GET', `/api/fixes?site=${siteId}`);
    const fix = fixes.rows[0]!.id;
    expect((await mara('PATCH', `/api/fixes/${fix}`, { contactId: id })).status).toBe(200);
    const theirs = await mara<{ rows: { id: number; owner: string; ownerId: null }[]; total: number }>(
      'GET',
      '/api/fixes?owner=client',
    );
    expect(theirs.body.rows).toMatchObject([{ id: fix, owner: 'Tam Rill', ownerId: null }]);
    const nobodys = await mara<{ rows: { id: number }[] }>('GET', `/api/fixes?owner=nobody&site=${siteId}`);
    expect(nobodys.body.rows.map((r) => r.id)).not.toContain(fix);
    // somebody of another client cannot
    const other = (await mara<{ rows: { id: number }[] }>('GET', '/api/clients?words=Tarn')).body.rows[0]!.id;
    const stranger = await mara<ContactLine>('POST', `/api/clients/${other}/contacts`, {
      name: 'Stranger',
      email: 's@tarn.example',
    });
    expect((await mara('PATCH', `/api/fixes/${fix}`, { contactId: stranger.body.id })).status).toBe(404);
    // and when they leave it is nobody's
    await mara('DELETE', `/api/contacts/${id}`);
    expect((await mara<{ contactId: number | null }>('GET', `/api/fixes/${fix}`)).body.contactId).toBeNull();
    expect((await mara<{ rows: [] }>('GET', '/api/fixes?owner=client')).body.rows).toEqual([]);
  });
});

describe('the report', () => {
  it('is put together from the newest audit, and shows what was chosen', async () => {
    const read = async () =>
      (
        await mara<{ report: Report; draft: { version: number; setup: Record<string, unknown> } }>(
          'GET',
          `/api/sites/${siteId}/report?environment=${staging}`,
        )
      ).body;
    const first = await read();
    expect(first.report.open.map((o) => o.check)).toContain('indexing.kept-out');
    const setup = { ...first.draft.setup, language: 'de', leftOut: ['indexing.kept-out'], smallToo: true };
    const body = { setup, from: first.draft.version };
    expect((await mara('PUT', `/api/sites/${siteId}/report`, body)).status).toBe(200);
    const second = await read();
    expect(second.report.language).toBe('de');
    expect(second.report.open.map((o) => o.check)).not.toContain('indexing.kept-out');
    expect(second.report.verdict).toMatch(/dem Start im Weg/);
    // somebody else has saved since
    expect((await joss('PUT', `/api/sites/${siteId}/report`, { setup, from: 7 })).status).toBe(409);
    const back = { setup: { ...setup, language: 'en', leftOut: [] }, from: second.draft.version };
    expect((await mara('PUT', `/api/sites/${siteId}/report`, back)).status).toBe(200);
  });
  it.each([
    ['a language nobody has written', { language: 'xx' }],
    ['a part that is none', { parts: ['gossip'] }],
    ['a check that is no id', { leftOut: ['<script>'] }],
    ['a field that is none', { more: 1 }],
  ])('%s is refused', async (_, change) => {
    const { body } = await mara<{ draft: { version: number; setup: object } }>(
      'GET',
      `/api/sites/${siteId}/report?environment=${staging}`,
    );
    const setup = { ...body.draft.setup, ...change };
    const sent = { setup, from: body.draft.version };
    expect((await mara('PUT', `/api/sites/${siteId}/report`, sent)).status).toBe(400);
  });
  it('an edition stays as it was published', async () => {
    const one = await publish(staging);
    const { body } = await mara<{ draft: { version: number; setup: object } }>(
      'GET',
      `/api/sites/${siteId}/report?environment=${staging}`,
    );
    const setup = { ...body.draft.setup, letter: 'Another letter' };
    await mara('PUT', `/api/sites/${siteId}/report`, { setup, from: body.draft.version });
    const two = await publish(staging);
    expect([one.number, two.number]).toEqual([1, 2]);
    // two editions of one audit are compared with the same one before it, not with each other
    expect(two.report.since).toBe(one.report.since);
    const again = (await mara<Edition>('GET', `/api/reports/${one.id}`)).body;
    expect(again.report.letter).toBe(one.report.letter);
    expect(two.report.letter).toBe('Another letter');
  });
  it('of an environment that was never audited, or of another site, there is none', async () => {
    const other = (await site('Tarn Planetarium')).environments[0]!.id;
    expect((await mara('GET', `/api/sites/${siteId}/report?environment=${other}`)).status).toBe(404);
    const { body } = await mara<{ id: number }>('POST', `/api/sites/${siteId}/environments`, {
      name: 'Draft',
      kind: 'before',
      url: 'https://nowhere.example/',
    });
    expect((await mara('GET', `/api/sites/${siteId}/report?environment=${body.id}`)).status).toBe(409);
    await mara('DELETE', `/api/environments/${body.id}`);
  });
  it('is a PDF on A4 that another reader opens, named after the site', async () => {
    const [edition] = (await shown()).editions;
    const answer = await fetch(`${desk.served.stack.address}/api/reports/${edition!.id}/pdf`, {
      headers: { cookie: await sessionCookie() },
    });
    expect(answer.headers.get('content-type')).toBe('application/pdf');
    const bytes = Buffer.from(await answer.arrayBuffer());
    const pdf = await PDFDocument.load(bytes);
    expect(pdf.getPageCount()).toBeGreaterThan(0);
    const { width, height } = pdf.getPage(0).getSize();
    expect([Math.round(width), Math.round(height)]).toEqual([595, 842]);
    expect(pdf.getTitle()).toContain(NAME);
  });
});

/** The cookie of a person who has signed in. */
async function sessionCookie(): Promise<string> {
  const answer = await fetch(`${desk.served.stack.address}/api/sign-in`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: 'mara@marram-studio.example', password: 'marram-demo' }),
  });
  return answer.headers
    .getSetCookie()
    .map((c) => c.split(';')[0])
    .join('; ');
}

describe('a share link', () => {
  let nell: number;
  let guest: Guest;
  beforeAll(async () => {
    nell = await newContact('Nell Carrow', 'nell@loft.example');
    guest = await openedLink(nell);
  });

  it('shows the newest edition and nothing of the agency’s own', async () => {
    const { body } = await guest.ask<{ isOpen: boolean; shared: Shared }>('GET', '');
    expect(body.isOpen).toBe(true);
    expect(body.shared.contact).toEqual({ id: nell, name: 'Nell Carrow' });
    expect(body.shared.edition.number).toBe(2);
    const three = await publish(staging);
    expect((await guest.ask<{ shared: Shared }>('GET', '')).body.shared.edition.number).toBe(three.number);
    const text = JSON.stringify(body.shared);
    for (const secret of ['evidenceSha256', 'fingerprint', 'marram-studio.example', '"fixId"'])
      expect(text).not.toContain(secret);
  });
  it('opens no other route, with its cookie or without', async () => {
    const opened: string[] = [];
    for (const route of Object.keys(ROUTES)) {
      const [method = '', pattern = ''] = route.split(' ');
      if (ROUTES[route] === 'anyone') continue;
      const path = pattern.replace(/:\w+/g, '1');
      const { status } = await caller(guest.cookie)(method, path);
      if (status !== 401) opened.push(`${status} ${route}`);
    }
    expect(opened).toEqual([]);
    expect(Object.keys(ROUTES).length).toBeGreaterThan(120);
    for (const page of ['/', '/fixes', `/sites/${siteId}`, `/reports/1`]) {
      const answer = await caller(guest.cookie)('GET', page);
      expect(`${answer.status} ${answer.headers.get('location') ?? ''}`).toMatch(/^302 \/sign-in/);
    }
  });
  it('is of one secret: with another’s cookie, or none, it shows nothing', async () => {
    const other = await openedLink(nell);
    const paths: [string, string, object?][] = [
      ['GET', '/picture?sha256=' + 'a'.repeat(64)],
      ['GET', '/logo'],
      ['GET', '/pdf'],
      ['POST', '/remarks', { about: 'whole', text: 'Hello' }],
      ['POST', '/yes', { editionId: 1 }],
      ['POST', '/withdraw', { reason: 'because' }],
    ];
    for (const [method, path, body] of paths)
      for (const cookie of ['', other.cookie]) {
        const { status } = await caller(cookie)(method, `/api/shared/${guest.secret}${path}`, body);
        expect(`${path} ${status}`).toBe(`${path} 403`);
      }
    const { body } = await caller('')<{ shared: null }>('GET', `/api/shared/${guest.secret}`);
    expect(body.shared).toBeNull();
    for (const [method, path, body] of paths) {
      const { status } = await caller(guest.cookie)(method, `/api/shared/${'x'.repeat(43)}${path}`, body);
      expect(`${path} ${status}`).toBe(`${path} 404`);
    }
  });
  it('keeps only a digest of its secret, and of its visits', async () => {
    const [row] = await sql<{ secret: string }>(
      'SELECT secret_sha256 AS secret FROM share_link ORDER BY id DESC LIMIT 1 OFFSET 1',
    );
    expect(row!.secret).toBe(createHash('sha256').update(guest.secret).digest('hex'));
  });
  it('is never indexed, nor told to other sites', async () => {
    for (const path of [`/shared/${guest.secret}`, `/api/shared/${guest.secret}`]) {
      const { headers, status } = await caller('')('GET', path);
      expect(status).toBe(200);
      expect(headers.get('x-robots-tag')).toBe('noindex, nofollow');
      expect(headers.get('referrer-policy')).toBe('no-referrer');
    }
    const cookie = (
      await caller('')('POST', `/api/shared/${guest.secret}/open`, {})
    ).headers.getSetCookie()[0]!;
    expect(cookie).toMatch(/HttpOnly/);
    expect(cookie).toMatch(/SameSite=Strict/);
    expect(cookie).toContain(`Path=/api/shared/${guest.secret}`);
  });
  it('counts how often and when it was opened, and not each look', async () => {
    const before = (await shown()).links.find((l) => l.contactId === nell)!;
    expect(before.opened).toBeGreaterThan(0);
    expect(Date.now() - Date.parse(before.lastOpened!)).toBeLessThan(300_000);
    const one = await openedLink(nell);
    await one.ask('POST', '/open', {});
    await one.ask('GET', '');
    expect((await shown()).links[0]).toMatchObject({ opened: 1, state: 'open', hasPassphrase: false });
  });
  it('is stored once a browser and day, and opens for so many browsers a day', async () => {
    const contactId = await newContact('Teasel Marsh', 'teasel@loft.example');
    const guest = await openedLink(contactId);
    const open = (cookie = '') => caller(cookie)('POST', `/api/shared/${guest.secret}/open`, {});
    await sql(
      'UPDATE share_visit SET at = at - INTERVAL 13 HOUR WHERE link_id = (SELECT MAX(id) FROM share_link)',
    );
    expect((await guest.ask('GET', `/picture?sha256=${'a'.repeat(64)}`)).status).toBe(403);
    expect((await open(guest.cookie)).status).toBe(200);
    const line = async () => (await shown()).links.find((l) => l.contactId === contactId)!;
    expect((await line()).opened).toBe(1);
    const all = [];
    for (let n = 0; n < 105; n++) all.push((await open()).status);
    expect([all[0], all[98], all[99], all.at(-1)]).toEqual([200, 200, 429, 429]);
    expect((await line()).opened).toBe(100);
    expect((await open(guest.cookie)).status).toBe(200);
  });
  it('has one PDF made at a time, which is kept; so many a day', async () => {
    await publish(staging);
    const contactId = await newContact('Sedge Lowe', 'sedge@loft.example');
    const { ask } = await openedLink(contactId);
    const both = await Promise.all([ask<string>('GET', '/pdf'), ask<string>('GET', '/pdf')]);
    expect(both.map((a) => a.status).sort()).toEqual([200, 429]);
    const [{ made } = { made: 0 }] = await sql<{ made: number }>(
      'SELECT COUNT(*) AS made FROM edition_pdf WHERE contact_id = ?',
      [contactId],
    );
    expect(Number(made)).toBe(1);
    // what was made is sent again, and not made again
    await sql('UPDATE share_link SET pdfs = 20 WHERE contact_id = ?', [contactId]);
    expect((await ask('GET', '/pdf')).status).toBe(200);
    await publish(staging);
    const refused = await ask<{ message: string }>('GET', '/pdf');
    expect([refused.status, refused.body.message]).toEqual([429, expect.stringMatching(/today/) as string]);
  });
  it('with a passphrase opens by that alone', async () => {
    const { body } = await mara<{ secret: string }>('POST', `/api/sites/${siteId}/share-links`, {
      contactId: nell,
      days: 1,
      passphrase: 'grey seal',
    });
    const path = `/api/shared/${body.secret}`;
    expect((await caller('')('POST', `${path}/open`, { passphrase: 'gray seal' })).status).toBe(403);
    expect((await caller('')('POST', `${path}/open`, {})).status).toBe(403);
    expect((await caller('')('POST', `${path}/open`, { passphrase: 'grey seal' })).status).toBe(200);
  });
  it.each([
    ['revoked', async (id: number) => void (await mara('DELETE', `/api/share-links/${id}`))],
    [
      'expired',
      async (id: number) =>
        void (await sql('UPDATE share_link SET expires_at = created_at WHERE id = ?', [id])),
    ],
    ['of a contact who has left', async () => void (await mara('DELETE', `/api/contacts/${gone}`))],
  ])('%s opens nothing, and says no more than one that never was', async (_, end) => {
    gone = await newContact('Wren Ash', `wren-${_.replaceAll(' ', '-')}@loft.example`);
    const link = await openedLink(gone);
    await end((await shown()).links[0]!.id);
    const answer = await link.ask('GET', '');
    const never = await caller('')('GET', `/api/shared/${'y'.repeat(43)}`);
    const said = ({ status, body }: { status: number; body: object }) => ({ ...body, status, url: '' });
    expect(said(answer)).toEqual(said(never));
    expect((await link.ask('POST', '/remarks', { about: 'whole', text: 'Hello' })).status).toBe(404);
  });
  let gone = 0;

  describe('remarks', () => {
    it('are told to the agency, answered, or become fixes whose way the client sees', async () => {
      const { edition } = (await guest.ask<{ shared: Shared }>('GET', '')).body.shared;
      const { open, pages } = edition.report;
      const sent: object[] = [
        { about: 'whole', text: 'Could the oak boat come first?' },
        { about: 'finding', check: open[0]!.check, text: 'Is this bad?' },
        { about: 'page', page: pages[0]!.url, text: 'Closed on Mondays.\n<b>always</b>' },
      ];
      for (const body of sent) expect((await guest.ask('POST', '/remarks', body)).status).toBe(200);
      const [page, about, whole] = (await shown()).remarks;
      expect(page).toMatchObject({ by: 'Nell Carrow', page: pages[0]!.url, state: 'waiting' });
      const { body: told } = await mara<{ rows: { text: string; link: string }[] }>('GET', '/api/messages');
      expect(told.rows[0]!.text).toContain('Nell Carrow remarked on Lifeboat Loft');
      expect(told.rows[0]!.link).toContain(`/sites/${siteId}?`);

      await mara('POST', `/api/remarks/${whole!.id}/answer`, { text: 'It does now.' });
      const made = await mara<{ fixId: number }>('POST', `/api/remarks/${page!.id}/fix`, {
        severity: 'major',
      });
      const own = await mara<{ fixId: number }>('POST', `/api/remarks/${about!.id}/fix`, {
        severity: 'minor',
      });
      expect((await mara('POST', `/api/remarks/${page!.id}/fix`, { severity: 'major' })).status).toBe(409);
      const fix = await mara<{ check: string; remark: { text: string } | null }>(
        'GET',
        `/api/fixes/${made.body.fixId}`,
      );
      expect(fix.body).toMatchObject({ check: `remark.${page!.id}`, remark: { by: 'Nell Carrow' } });
      // one about a fault joins the fix of that fault
      const joined = await mara<{ check: string }>('GET', `/api/fixes/${own.body.fixId}`);
      expect(joined.body.check).toBe(open[0]!.check);
      // no audit closes what no audit can see
      await auditAgain(staging);
      const { rows } = (
        await mara<{ rows: { id: number; title: string; state: string }[] }>(
          'GET',
          `/api/fixes?site=${siteId}&words=Mondays`,
        )
      ).body;
      expect(rows).toMatchObject([{ id: made.body.fixId, title: 'Closed on Mondays.', state: 'open' }]);

      const state = async (): Promise<string[]> =>
        (await guest.ask<{ shared: Shared }>('GET', '')).body.shared.remarks.map((r) => r.state);
      expect((await state()).slice(0, 3)).toEqual(['taken', 'taken', 'answered']);
      for (const to of ['to verify', 'verified'])
        expect((await mara('PATCH', `/api/fixes/${made.body.fixId}`, { state: to })).status).toBe(200);
      expect((await state())[0]).toBe('done');
    });
    it.each([
      ['nothing', { about: 'whole', text: '  ' }],
      ['a page that is not in the report', { about: 'page', page: 'https://elsewhere.example/', text: 'x' }],
      ['a finding that is not in the report', { about: 'finding', check: 'domain.spf', text: 'x' }],
      ['a region that is none', { about: 'whole', text: 'x', region: { x: 2, y: 0, width: 1, height: 1 } }],
      ['more than is taken', { about: 'whole', text: 'x'.repeat(4001) }],
    ])('%s is refused', async (_, body) => {
      expect((await guest.ask('POST', '/remarks', body)).status).toBe(400);
    });
  });

  describe('a yes', () => {
    const outcome = async (id: number): Promise<string> => (await finding(id, CHECK)).outcome;
    it('is to one audit, and stands while the content is the same', async () => {
      expect(await outcome(staging)).toBe('untested');
      const edition = await publish(staging);
      expect((await guest.ask('POST', '/yes', { editionId: edition.id - 1 })).status).toBe(409);
      const said = { editionId: edition.id, note: 'Lovely.' };
      expect((await guest.ask('POST', '/yes', said)).status).toBe(200);
      expect((await guest.ask('POST', '/yes', said)).status).toBe(409);
      const [approval] = (await shown()).approvals;
      expect(approval).toMatchObject({
        by: 'Nell Carrow',
        note: 'Lovely.',
        auditId: edition.auditId,
        isUntouched: true,
        withdrawn: null,
      });
      expect(await outcome(staging)).toBe('passed');
      await auditAgain(staging);
      expect(await outcome(staging)).toBe('passed');
    });
    it('does not stand for other content, and says what changed', async () => {
      await turn('lifeboat', 'staging', 'changed-since-yes', true);
      await auditAgain(staging);
      const changed = await finding(staging, CHECK);
      expect(changed).toMatchObject({ outcome: 'failed', severity: 'blocker' });
      expect(changed.found).toContain('text changed since the yes');
      expect((await guest.ask<{ shared: Shared }>('GET', '')).body.shared.isStale).toBe(true);
      // a new yes to what is there now
      const edition = await publish(staging);
      expect((await guest.ask('POST', '/yes', { editionId: edition.id })).status).toBe(200);
      expect(await outcome(staging)).toBe('passed');
      await turn('lifeboat', 'staging', 'changed-since-yes', false);
    });
    it('rests on evidence and pictures that nobody deletes or changes unseen', async () => {
      const { approvals, editions } = await shown();
      const [newer, older] = approvals;
      expect((await mara('DELETE', `/api/audits/${older!.auditId}`)).status).toBe(409);
      // nor the environment that it was said to
      expect((await mara('DELETE', `/api/environments/${staging}`)).status).toBe(409);
      // nor what a client was told of
      expect((await mara('DELETE', `/api/audits/${editions.at(-1)!.auditId}`)).status).toBe(409);
      expect((await mara('GET', `/api/sites/${siteId}/contents`)).body).toMatchObject({
        reports: editions.length,
        yeses: 2,
        launches: 0,
      });
      await sql(
        'UPDATE audit_evidence SET data = (SELECT data FROM (SELECT data FROM audit_evidence WHERE audit_id = ?) o) WHERE audit_id = ?',
        [newer!.auditId, older!.auditId],
      );
      expect((await shown()).approvals.map((a) => a.isUntouched)).toEqual([true, false]);
    });
    it('is taken back with a reason, by whoever said it or by the agency, and stays in the history', async () => {
      expect((await guest.ask('POST', '/withdraw', { reason: 'x' })).status).toBe(400);
      expect((await guest.ask('POST', '/withdraw', { reason: 'The board wants to see it.' })).status).toBe(
        200,
      );
      const [first, second] = (await shown()).approvals;
      expect(first!.withdrawn).toMatchObject({ by: 'Nell Carrow', reason: 'The board wants to see it.' });
      // the one before does not stand in for it
      expect(second!.withdrawn).toMatchObject({ reason: 'The board wants to see it.' });
      const path = `/api/approvals/${second!.id}/withdraw`;
      expect((await joss('POST', path, { reason: 'It was said to a draft.' })).status).toBe(409);
      expect(await outcome(staging)).toBe('untested');
      expect((await guest.ask('POST', '/withdraw', { reason: 'Nothing is left.' })).status).toBe(409);
    });
    it('sent several times at once stands once, and none stands once it is taken back', async () => {
      const edition = await publish(staging);
      const contactId = await newContact('Yarrow Pell', 'yarrow@loft.example');
      const guest = await openedLink(contactId);
      const sent = await Promise.all(
        Array.from({ length: 8 }, () => guest.ask('POST', '/yes', { editionId: edition.id })),
      );
      expect(sent.map((a) => a.status).sort()).toEqual([200, ...Array<number>(7).fill(409)]);
      const own = async () => (await shown()).approvals.filter((a) => a.contactId === contactId);
      expect(await own()).toHaveLength(1);
      // an older one to another audit does not stand in for the one that is taken back
      await auditAgain(staging);
      const newer = await publish(staging);
      expect((await guest.ask('POST', '/yes', { editionId: newer.id })).status).toBe(200);
      expect((await guest.ask('POST', '/withdraw', { reason: 'not yet' })).status).toBe(200);
      expect((await own()).map((a) => a.withdrawn?.reason)).toEqual(['not yet', 'not yet']);
      expect((await guest.ask('POST', '/withdraw', { reason: 'not yet' })).status).toBe(409);
      // a mind that changes all day is a program
      const statuses = [];
      for (let n = 0; n < 20; n++) {
        statuses.push((await guest.ask('POST', '/yes', { editionId: newer.id })).status);
        await guest.ask('POST', '/withdraw', { reason: 'no again' });
      }
      expect([statuses[0], statuses.at(-1)]).toEqual([200, 429]);
    });
    it('says nothing of a live site that was never shown, before the launch', async () => {
      expect(['untested', 'cantTell', undefined]).toContain((await finding(live, CHECK)).outcome);
    });
  });
});

describe('on the way to the launch', () => {
  it('says what stands against it on what counts, the newest yes, and the records that change', async () => {
    const { body } = await mara<LaunchStanding>('GET', `/api/sites/${siteId}/launch`);
    expect(body.environments.map((e) => [e.name, e.isLive])).toEqual([
      ['Staging', false],
      ['Live', true],
    ]);
    const [before] = body.environments;
    expect(before!.against.map((a) => a.check)).toEqual(
      expect.arrayContaining(['indexing.kept-out', CHECK]) as string[],
    );
    expect(before!.against.map((a) => a.outcome).slice(0, 1)).toEqual(['failed']);
    expect(body.yes).toBeNull();
    expect((await mara('GET', '/api/sites/999999/launch')).status).toBe(404);
  });
  it('plans the cut-over from what live serves', async () => {
    const choir = (await site('Sallow Choir')).id;
    const { body } = await mara<SiteCutOver>('GET', `/api/sites/${choir}/cut-over`);
    const change = body.lines.find((l) => l.name === 'sallow-choir.example' && l.type === 'A')!;
    expect(change.action).toBe('change');
    expect(change.lasts).toBeGreaterThan(3600);
    expect(body.back).toContain(`sallow-choir.example. ${change.ttl} IN A ${change.before[0]}`);
    expect(body.wanted).toContain(`sallow-choir.example. 300 IN A ${change.after[0]}`);
    expect(body.lines.filter((l) => l.type === 'MX').map((l) => l.action)).toEqual(['keep']);
  });
});

describe('the agency’s template', () => {
  it('is for owners to change, and takes a picture for a logo', async () => {
    const png = Buffer.from(
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
      'base64',
    );
    const { body } = await mara<Record<string, unknown>>('GET', '/api/report-template');
    const { hasLogo, ...template } = body;
    expect(hasLogo).toBe(false);
    expect((await joss('PUT', '/api/report-template', template)).status).toBe(403);
    expect((await mara('PUT', '/api/report-template', { ...template, name: 'Marram Studio' })).status).toBe(
      200,
    );
    expect((await mara('PUT', '/api/report-template', { ...template, colour: 'red' })).status).toBe(400);
    expect((await mara('GET', '/api/report-template/logo')).status).toBe(404);
    expect((await mara('POST', '/api/report-template/logo', png)).status).toBe(200);
    expect((await mara('GET', '/api/report-template/logo')).headers.get('content-type')).toBe('image/png');
    const page = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>1</script></svg>');
    expect((await mara('POST', '/api/report-template/logo', page)).status).toBe(400);
    expect((await mara('DELETE', '/api/report-template/logo')).status).toBe(200);
  });
});

describe('findings as files', () => {
  it.each([
    ['earl', 'application/ld+json', /earl:Assertion/],
    ['junit', 'application/xml', /<testsuites /],
    ['csv', 'text/csv', /^check,section/],
    ['markdown', 'text/markdown', /^# <https/],
  ])('%s', async (as, type, wanted) => {
    await settled();
    const { id } = (await desk.history(staging))[0]! as unknown as { id: number };
    const [row] = await sql<{ id: number }>('SELECT last_audit_id AS id FROM environment WHERE id = ?', [
      staging,
    ]);
    const { headers, body, status } = await mara<string | object>(
      'GET',
      `/api/audits/${row!.id}/findings?as=${as}`,
    );
    expect(id).toBeDefined();
    expect(status).toBe(200);
    expect(headers.get('content-type')).toContain(type);
    expect(headers.get('content-disposition')).toMatch(/^attachment; filename="lifeboat-loft-staging-/);
    expect(typeof body === 'string' ? body : JSON.stringify(body)).toMatch(wanted);
  });
  it('in no other format', async () => {
    const [row] = await sql<{ id: number }>('SELECT last_audit_id AS id FROM environment WHERE id = ?', [
      staging,
    ]);
    expect((await mara('GET', `/api/audits/${row!.id}/findings?as=exe`)).status).toBe(400);
  });
});

describe('two clients that become one', () => {
  it('have their contacts together, one address once', async () => {
    const clients = async (words: string): Promise<{ id: number; contacts: number }> =>
      (await mara<{ rows: { id: number; contacts: number }[] }>('GET', `/api/clients?words=${words}`)).body
        .rows[0]!;
    const from = await clients('Wharf');
    const into = await clients('Heron');
    const add = (id: number, name: string, email: string) =>
      mara('POST', `/api/clients/${id}/contacts`, { name, email });
    await add(from.id, 'Una Reed', 'una@wharf.example');
    await add(from.id, 'Both', 'both@wharf.example');
    await add(into.id, 'Both', 'both@wharf.example');
    expect((await mara('POST', `/api/clients/${from.id}/merge`, { into: into.id })).status).toBe(200);
    const { body } = await mara<ContactLine[]>('GET', `/api/clients/${into.id}/contacts`);
    expect(body.map((c) => c.name)).toEqual(['Both', 'Una Reed']);
  });
});
