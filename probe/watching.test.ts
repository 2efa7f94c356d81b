/** One look of the watch, where nobody answers: it comes to an end and says so. */
import dgram from 'node:dgram';
import net from 'node:net';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { watchStanding, type WatchGoal } from '#core/launch/watch';
import { TrustStore } from './tls';
import { lookAround } from './watching';

const D = 'tram.example';
const goal: WatchGoal = {
  lines: [{ name: D, type: 'A', before: ['192.0.2.77'], after: ['192.0.2.20'], lasts: 60 }],
  nameServers: [],
  nsTtl: 0,
  hosts: [D],
  mail: [`10 mail.${D}`],
};
const silentNames = dgram.createSocket('udp4');
const silentWeb = net.createServer(() => {});
const held = new Set<net.Socket>();
silentWeb.on('connection', (socket) => {
  held.add(socket);
  socket.on('error', () => {});
});
beforeAll(async () => {
  await new Promise<void>((r) => silentNames.bind(0, '127.0.0.1', r));
  await new Promise<void>((r) => silentWeb.listen(0, '127.0.0.1', r));
});
afterAll(async () => {
  silentNames.close();
  for (const socket of held) socket.destroy();
  await new Promise((r) => silentWeb.close(r));
});

describe('where nobody answers', () => {
  const options = (map: string[]) => ({
    goal,
    zone: D,
    brief: { name: 'Trams' },
    store: new TrustStore([]),
    agent: 'test',
    resolvers: [`127.0.0.1:${silentNames.address().port}`],
    map,
    timeoutMs: 300,
  });
  it('a silent resolver leaves everything silent', async () => {
    const seen = await lookAround(options([]), 7);
    expect(seen.at).toBe(7);
    expect(seen.servers).toMatchObject([{ kind: 'resolver', answers: [{ error: 'no answer in time' }] }]);
    expect(seen.hosts).toMatchObject([{ host: D, shows: 'nothing' }]);
    expect(watchStanding(goal, seen, null, 0).subjects.map((s) => s.state)).not.toContain('new');
  });
  it('a host that takes connections and never answers is silent, in bounded time', async () => {
    const port = (silentWeb.address() as AddressInfo).port;
    const map = [
      `${D}:443=127.0.0.1:${port}`,
      `${D}:80=127.0.0.1:${port}`,
      `192.0.2.20:443=127.0.0.1:${port}`,
    ];
    const seen = await lookAround(options(map), 7);
    expect(seen.hosts[0]).toMatchObject({ shows: 'nothing' });
    expect(seen.hosts[0]).not.toHaveProperty('isCovered');
    expect(seen.atNew).toMatchObject({ shows: 'nothing', address: '192.0.2.20' });
  });
});
