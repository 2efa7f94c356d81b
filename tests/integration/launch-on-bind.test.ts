/**
 * A launch from end to end against Debian's servers: BIND twice, Apache where the site was, nginx where it goes. What
 * sheet and watch say at each step, with a certificate for another name, mail on the old address, an AAAA that one name
 * server still has, and one that was not changed.
 */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Sheet, SheetStep } from '../../server/launch/sheet';
import type { SiteCutOver } from '../../server/launch/cut-over';
import type { WatchShown } from '../../server/launch/watch';
import { Bed, HEAD, OLD_WEB, WEB } from '../real-servers/bed';
import { useDesk } from './desk';
import { until } from './served';

const APEX = 'firth-ferry.example';
const WWW = `www.${APEX}`;
const NEW_HOST = 'web7.quayside-hosting.example';
const OLD_V6 = '2001:db8::81';

let bed: Bed;
const env: Record<string, string> = {};
beforeAll(async () => {
  bed = await Bed.start();
  bed.hasSecond = true;
  for (const name of [APEX, WWW, NEW_HOST]) bed.certificate(name, name === APEX ? [APEX, WWW] : [name]);
  await names(zone(OLD_WEB, OLD_V6));
  await oldServer();
  await newServer(NEW_HOST);
  Object.assign(env, {
    ARMBAND_RESOLVERS: bed.resolver,
    ARMBAND_WATCH_RESOLVERS: bed.resolver,
    ARMBAND_MAP: bed.map.join(','),
    ARMBAND_CA: bed.rootFile,
    ARMBAND_TIMEOUT: '5',
  });
});
afterAll(() => bed.stop());
const desk = useDesk('.test/launch-on-bind', env);
const { mara, settled } = desk;

/** The zone with the web at an address; mail lies where the web was. */
const zone = (web: string, v6?: string): string[] => [
  ...HEAD,
  `@ IN A ${web}`,
  ...(v6 ? [`@ IN AAAA ${v6}`] : []),
  `www IN A ${web}`,
  `mail IN A ${OLD_WEB}`,
  '@ IN MX 10 mail',
  '@ IN TXT "v=spf1 a mx -all"',
];
/** @param second what the second name server has, where that is something else */
async function names(first: string[], second = first): Promise<void> {
  bed.zone(APEX, first).stays(APEX, second);
  await bed.names();
}
const page = (title: string): string =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${title}</title></head><body><h1>${title}</h1><p>Boats across the firth, every hour from seven until the tide is out.</p></body></html>`;
const tls = (name: string): string =>
  `SSLEngine on\nSSLCertificateFile ssl/${name}/fullchain.pem\nSSLCertificateKeyFile ssl/${name}/privkey.pem`;
function oldServer(): Promise<void> {
  const root = bed.files('old', { 'index.html': page('The ferry as it was') });
  const content = `DocumentRoot ${root}\n<Directory ${root}>\nRequire all granted\n</Directory>`;
  return bed.oldApache(
    `<VirtualHost *:80>\nServerName ${APEX}\nServerAlias ${WWW}\n${content}\n</VirtualHost>`,
    `<VirtualHost *:443>\nServerName ${APEX}\nServerAlias ${WWW}\n${tls(APEX)}\n${content}\n</VirtualHost>`,
  );
}
/** The new host knows the site; before its certificate is issued it presents its own. */
function newServer(certificate: string): Promise<void> {
  const root = bed.files('new', { 'index.html': page('Firth Ferry') });
  return bed.nginx(
    `server { listen 80; listen [::]:80; server_name ${APEX} ${WWW}; return 301 https://${APEX}$request_uri; }`,
    `server { listen 443 ssl; listen [::]:443 ssl; server_name ${APEX} ${WWW}; ssl_certificate ssl/${certificate}/fullchain.pem; ssl_certificate_key ssl/${certificate}/privkey.pem; root ${root}; index index.html; if ($host = ${WWW}) { return 301 https://${APEX}$request_uri; } }`,
  );
}

let siteId: number;
let launchId: number;
let watchId: number;
const sheet = async (): Promise<Sheet> => (await mara<Sheet>('GET', `/api/sites/${siteId}/sheet`)).body;
const step = async (id: string): Promise<SheetStep> => (await sheet()).steps.find((s) => s.id === id)!;
const plan = async (): Promise<SiteCutOver> =>
  (await mara<SiteCutOver>('GET', `/api/sites/${siteId}/cut-over`)).body;
const watched = async (): Promise<WatchShown> =>
  (await mara<WatchShown>('GET', `/api/sites/${siteId}/watch`)).body;
/** Looks until the watch says what is wanted. */
const reasons = (good: (all: string) => boolean): Promise<string[]> =>
  until(
    async () => {
      await mara('POST', `/api/watches/${watchId}/look`);
      const { standing } = await watched();
      return [standing?.verdict ?? '', ...(standing?.reasons ?? [])];
    },
    (all) => good(all.join('\n')),
    60_000,
  );

describe('a launch against servers of Debian', () => {
  it('begins with the former site, audited where it is', async () => {
    const { status, body } = await mara<{ id: number }>('POST', '/api/sites', {
      name: 'Firth Ferry',
      client: 'Firth Ferry Company',
      liveUrl: `https://${APEX}/`,
      environments: [],
      stage: 'pre-launch',
      replaces: true,
      brief: {
        name: 'Firth Ferry',
        preferredHost: APEX,
        otherHosts: [WWW],
        contactEmail: `office@${APEX}`,
        records: [APEX, WWW].map((name) => ({ name, type: 'A', value: WEB })),
      },
    });
    expect(status).toBe(200);
    siteId = body.id;
    const { id } = await desk.environmentOf('Firth Ferry', 'Live');
    await desk.auditAgain(id);
    expect(await desk.environmentOf('Firth Ferry', 'Live')).toMatchObject({ situation: 'former' });
  });
  it('the plan names what shares the address: mail, and what SPF allows', async () => {
    const { wanted, shares } = await plan();
    expect(wanted.split('\n').sort()).toEqual([`${APEX}. 60 IN A ${WEB}`, `${WWW}. 60 IN A ${WEB}`]);
    expect(shares.map((s) => s.text)).toEqual([
      `Mail of ${APEX} is delivered to mail.${APEX}, which leads to ${OLD_WEB} too (by its own record), and stays there.`,
      `SPF of ${APEX} allows mail from ${OLD_WEB} (a); it still does after the change (mx).`,
      `SPF of ${APEX} allows mail from ${OLD_V6} (a); after the change it forbids it (-all).`,
    ]);
  });
  it('the sheet asks the new address for the name, and lets nothing be done that has to wait', async () => {
    const begun = await mara<{ id: number }>('POST', `/api/sites/${siteId}/sheet`, {
      plannedAt: new Date(Date.now() + 86_400_000).toISOString(),
    });
    launchId = begun.body.id;
    expect((await mara('POST', `/api/launches/${launchId}/look`, { step: 'host-told' })).status).toBe(200);
    await settled();
    expect(await step('host-told')).toMatchObject({
      state: 'done',
      isProven: true,
      proofs: [{ found: `${WEB} shows for ${APEX}: site, “Firth Ferry”` }],
    });
    expect(await step('mail-carried')).toMatchObject({ state: 'done', isProven: true });
    expect((await step('records-changed')).state).toBe('waits');
    expect((await step('records-changed')).proofs[0]!.found).toBe(
      `change A ${APEX}; change A ${WWW}; take away AAAA ${APEX}`,
    );
  });
  it('the watch says that nothing has changed yet', async () => {
    expect((await mara('POST', `/api/sites/${siteId}/watch`)).status).toBe(200);
    watchId = (await until(watched, (w) => w.looks > 0)).id;
    expect(await reasons((all) => all.includes('Told to the host'))).toEqual([
      'waiting',
      expect.stringMatching(/^Told to the host, not set at the DNS operator: 192\.0\.2\.80 shows the site/),
    ]);
  });
  it('one server that was not changed and a certificate for another name are two faults', async () => {
    await names(zone(WEB), zone(OLD_WEB, OLD_V6));
    const [verdict, ...all] = await reasons((r) => r.includes('Half of the servers') && r.includes(NEW_HOST));
    expect(verdict).toBe('waiting');
    expect(all).toEqual([
      `Half of the servers: ns1.servers.example has the new records, but ns2.servers.example gives A ${APEX}: ${OLD_WEB}; A ${WWW}: ${OLD_WEB}; AAAA ${APEX}: ${OLD_V6}. Its operator has to spread them.`,
      `No valid certificate for ${APEX} and ${WWW}: the certificate is only for ${NEW_HOST} at ${WEB}.`,
    ]);
  });
  it('an AAAA that one server still has is named, with that server', async () => {
    await names(zone(WEB), zone(WEB, OLD_V6));
    const all = await reasons((r) => r.includes(`gives AAAA ${APEX}`));
    expect(all.slice(1)).toEqual([
      `Half of the servers: ns1.servers.example has the new records, but ns2.servers.example gives AAAA ${APEX}: ${OLD_V6}. Its operator has to spread them.`,
      expect.stringMatching(/^No valid certificate/),
    ]);
  });
  it('it does not hold while every visitor gets a certificate error', async () => {
    await names(zone(WEB));
    expect(await reasons((r) => !r.includes('servers.example'))).toEqual([
      'waiting',
      `No valid certificate for ${APEX} and ${WWW}: the certificate is only for ${NEW_HOST} at ${WEB}.`,
    ]);
    const { subjects } = (await watched()).standing!;
    expect(subjects.filter((s) => s.kind === 'https').map((s) => s.state)).not.toContain('new');
  });
  it('it holds once the certificate is issued, and mail is where it was', async () => {
    await newServer(APEX);
    expect(await reasons((r) => r.startsWith('holds'))).toEqual(['holds']);
    const { subjects } = (await watched()).standing!;
    expect(subjects.every((s) => s.state === 'new')).toBe(true);
    expect(subjects.find((s) => s.kind === 'mail')).toMatchObject({ text: `10 mail.${APEX}` });
  });
  it('what was proven before stays proven, and the old host is not cancelled while mail leads there', async () => {
    await mara('POST', `/api/launches/${launchId}/look`, { step: 'records-changed' });
    await settled();
    expect((await step('records-changed')).proofs[0]).toMatchObject({ outcome: 'passed' });
    const { codes } = (await sheet()).go;
    const go = (who: typeof mara, body: object) =>
      who<{ message?: string }>('POST', `/api/launches/${launchId}/go`, body);
    await go(mara, { reason: 'The ferry’s season begins.' });
    const { at } = (await sheet()).launch.anyway!;
    expect((await go(desk.joss, { agreesTo: at, seen: codes })).status).toBe(200);
    expect((await mara('PATCH', `/api/sites/${siteId}`, { stage: 'launched' })).status).toBe(200);
    await until(
      () => step('certificate'),
      (s) => s.state === 'done',
    );
    expect(await step('mail-carried')).toMatchObject({ state: 'done', isProven: true });
    await mara('POST', `/api/launches/${launchId}/look`, { step: 'old-ended' });
    await settled();
    const ended = await step('old-ended');
    expect(ended.state).not.toBe('done');
    expect(ended.proofs.map((p) => p.found).join(' ')).toContain(`mail.${APEX}`);
  });
});
