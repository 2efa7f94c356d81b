/**
 * What the demo’s clients have been shown and have said: done over the application’s own routes, as its people and
 * theirs would. Once a demo; the link stays with it.
 */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { waitForAudits } from './stack.mjs';

const LETTER = `Dear friends of {site},

here is how your site stands today: what we have put right since you last looked, what is still open, and who does it. Say what you think of anything you see, and say yes once it is as you want it.`;

/** Three blades of marram grass. */
const LOGO = `<svg xmlns="http://www.w3.org/2000/svg" width="132" height="88" viewBox="0 0 66 44">
<g fill="none" stroke="#2f6b3a" stroke-width="4" stroke-linecap="round"><path d="M32 42C32 26 28 12 16 4"/><path d="M33 42C33 24 34 12 34 3"/><path d="M34 42C35 28 41 16 54 10"/></g>
<path d="M4 42h58" stroke="#8a5a00" stroke-width="3" stroke-linecap="round"/></svg>`;

/** @returns a caller of routes; throws with the server’s sentence where it refuses */
function callerOf(address, cookie) {
  return async (method, path, body) => {
    const isBytes = Buffer.isBuffer(body);
    const answer = await fetch(`${address}${path}`, {
      method,
      headers: {
        cookie,
        ...(body === undefined
          ? {}
          : { 'content-type': isBytes ? 'application/octet-stream' : 'application/json' }),
        ...(isBytes ? { 'x-file-name': 'site.zip' } : {}),
      },
      ...(body === undefined ? {} : { body: isBytes ? body : JSON.stringify(body) }),
    });
    const text = await answer.text();
    if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status} ${text}`);
    return { answer, body: text && JSON.parse(text) };
  };
}

/** Opens a share link as its contact would. @returns a caller of its routes */
async function openLink(address, secret) {
  const base = `/api/shared/${secret}`;
  const { answer } = await callerOf(address, '')('POST', `${base}/open`, {});
  const cookie = answer.headers.getSetCookie()[0].split(';')[0];
  const call = callerOf(address, cookie);
  return (method, path, body) => call(method, `${base}${path}`, body);
}

/** @param site by its name; @returns it with its environments and its client */
async function siteNamed(call, name) {
  const { body: found } = await call('GET', `/api/sites/find?words=${encodeURIComponent(name)}`);
  const { id } = found.find((s) => s.name === name);
  const { body: site } = await call('GET', `/api/sites/${id}`);
  const { body: shown } = await call('GET', `/api/sites/${id}/report/shown`);
  const environment = (named) => site.environments.find((e) => e.name === named).id;
  return { id, clientId: shown.clientId, environment };
}

const addContact = async (call, site, contact) =>
  (await call('POST', `/api/clients/${site.clientId}/contacts`, contact)).body.id;

/** Publishes a report and makes a link for a contact. @returns the secret */
async function share(call, site, environmentId, contactId) {
  await call('POST', `/api/sites/${site.id}/report/publish`, { environmentId });
  const { body } = await call('POST', `/api/sites/${site.id}/share-links`, { contactId, days: 90 });
  return body.secret;
}

/** Who does what by when: one of the agency most of it, the contact what only they can write. */
async function giveOut(call, site, contactId) {
  const { body: people } = await call('GET', '/api/people');
  const joss = people.find((p) => p.name === 'Joss Teal');
  const { body: fixes } = await call('GET', `/api/fixes?site=${site.id}`);
  const dueDate = new Date(Date.now() + 4 * 86_400_000).toISOString().slice(0, 10);
  for (const { id, check } of fixes.rows)
    await call('PATCH', `/api/fixes/${id}`, {
      dueDate,
      ...(check === 'metadata.description-present' ? { contactId } : { ownerId: joss.id }),
    });
}

/** A contact who has remarked on three things. */
async function remarks({ call, address }) {
  const site = await siteNamed(call, 'Lifeboat Loft');
  const staging = site.environment('Staging');
  await call('POST', '/api/audits', { environmentIds: [staging], scope: { parts: ['rendered'] } });
  await waitForAudits(address);
  const nell = { name: 'Nell Carrow', email: 'nell@lifeboat-loft.example', role: 'keeper of the loft' };
  const contactId = await addContact(call, site, nell);
  await giveOut(call, site, contactId);
  const secret = await share(call, site, staging, contactId);
  const guest = await openLink(address, secret);
  const { shared } = (await guest('GET', '')).body;
  const { pages, open } = shared.edition.report;
  const home = pages[0];
  await guest('POST', '/remarks', { about: 'whole', text: 'It reads well. Could the oak boat come first?' });
  await guest('POST', '/remarks', {
    about: 'page',
    page: home.url,
    ...(home.phone ? { screen: 'phone', region: { x: 0.05, y: 0.1, width: 0.9, height: 0.2 } } : {}),
    text: 'The line under our name should say that we are open in winter too.',
  });
  await guest('POST', '/remarks', {
    about: 'finding',
    check: open[0].check,
    text: 'Is this what my nephew saw on his phone?',
  });
  const { body: shown } = await call('GET', `/api/sites/${site.id}/report/shown`);
  const [finding, page, whole] = shown.remarks;
  await call('POST', `/api/remarks/${whole.id}/answer`, { text: 'It does from this week on.' });
  await call('POST', `/api/remarks/${page.id}/fix`, { severity: 'major' });
  await call('POST', `/api/remarks/${finding.id}/answer`, { text: 'It is, and it is being put right.' });
  return secret;
}

/** A contact who has said yes to a site that has changed since. */
async function staleYes({ call, address, control }) {
  const site = await siteNamed(call, 'Firth Tram Society');
  const staging = site.environment('Staging');
  const orrin = { name: 'Orrin Gale', email: 'orrin@firth-trams.example', role: 'chair' };
  const secret = await share(call, site, staging, await addContact(call, site, orrin));
  const guest = await openLink(address, secret);
  const { shared } = (await guest('GET', '')).body;
  await guest('POST', '/yes', { editionId: shared.edition.id, note: 'Just as we talked about it.' });
  const change = { site: 'trams', environment: 'staging', fault: 'changed-since-yes', on: true };
  await fetch(`${control}/fault`, { method: 'POST', body: JSON.stringify(change) });
  await call('POST', '/api/audits', { environmentIds: [staging] });
  await waitForAudits(address);
}

/** A launch in three days, with its sheet half done. */
async function halfLaunched({ call }) {
  const site = await siteNamed(call, 'Firth Tram Society');
  const { body: people } = await call('GET', '/api/people');
  const joss = people.find((p) => p.name === 'Joss Teal');
  const { body: contacts } = await call('GET', `/api/clients/${site.clientId}/contacts`);
  const account = (kind, operator, holder, access, payer) =>
    call('PUT', `/api/sites/${site.id}/accounts`, {
      kind,
      operator,
      holder,
      access,
      payer,
      hasTransferCode: false,
      note: '',
    });
  await account('registrar', 'Gullwing Names', 'Firth Tram Society', 'Orrin Gale', 'the society');
  await account('dns', 'Gullwing Names', 'Firth Tram Society', 'Orrin Gale, Joss Teal', 'the society');
  await account('host', 'Quayside Pages', 'Marram Studio', 'Mara Quill, Joss Teal', 'Marram Studio');
  const day = new Date(Date.now() + 3 * 86_400_000).toISOString().slice(0, 10);
  const { body: launch } = await call('POST', `/api/sites/${site.id}/sheet`, {
    plannedAt: `${day}T08:00:00.000Z`,
  });
  const act = (step, body) => call('POST', `/api/launches/${launch.id}/steps/${step}`, body);
  await act('plan-fits', { act: 'done', text: 'The middle plan, paid until spring.' });
  await act('backup', { act: 'done', text: 'Restored on the test machine.' });
  await act('default-accounts', { act: 'done' });
  await act('forms', { act: 'own', ownerId: joss.id });
  await act('registration', { act: 'own', contactId: contacts[0].id });
  await act('host-told', { act: 'own', ownerId: joss.id });
  await act('records-changed', { act: 'own', contactId: contacts[0].id });
  await act('looked-at', { act: 'own', outside: 'Ida, who has an old phone' });
  await act('client-warned', { act: 'leave out', text: 'The chair makes the change himself.' });
}

/** A build of which two files did not go up, at a host that puts its badge into every page. */
async function build({ call, address, control }) {
  const site = await siteNamed(call, 'Reedling Puppet Theatre');
  const zip = Buffer.from(await (await fetch(`${control}/build/puppets`)).arrayBuffer());
  await call('POST', `/api/sites/${site.id}/build`, zip);
  // files that nothing leads to are asked for by the next audit
  await call('POST', '/api/audits', { environmentIds: [site.environment('Live')] });
  await waitForAudits(address);
}

/**
 * @param stack as `startStack` gave it
 * @param folder of the demo
 * @returns the address of a share link
 */
export async function showClients({ address, net }, folder) {
  const file = join(folder, 'share-link');
  const linkOf = (secret) => `${address}/shared/${secret}`;
  if (existsSync(file)) return linkOf(readFileSync(file, 'utf8'));
  const call = callerOf(address, await waitForAudits(address));
  await call('PUT', '/api/report-template', {
    name: 'Marram Studio',
    colour: '#2f6b3a',
    language: 'en',
    parts: ['letter', 'standing', 'changed', 'open', 'left', 'pictures', 'manual'],
    letter: LETTER,
    signedBy: 'Mara Quill, Marram Studio',
    smallToo: false,
  });
  await call('POST', '/api/report-template/logo', await sharp(Buffer.from(LOGO)).png().toBuffer());
  const demo = { call, address, control: net.control };
  const secret = await remarks(demo);
  await staleYes(demo);
  await halfLaunched(demo);
  await build(demo);
  writeFileSync(file, secret);
  return linkOf(secret);
}
