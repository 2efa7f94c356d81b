/**
 * Starts the practice net by itself: `node --import tsx/esm net/start.ts FOLDER` writes net.json and ca.pem
 * there.
 */
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { startPracticeNet } from './practice-net';

const folder = process.argv[2] ?? '.demo';
mkdirSync(folder, { recursive: true });
const net = await startPracticeNet({ switchFile: join(folder, 'switches.json') });
writeFileSync(join(folder, 'ca.pem'), net.caPem);
writeFileSync(join(folder, 'rdap-bootstrap.json'), JSON.stringify(net.bootstrap));
writeFileSync(
  join(folder, 'net.json'),
  JSON.stringify(
    {
      resolver: net.resolver,
      caches: net.caches,
      map: net.map,
      ca: join(folder, 'ca.pem'),
      bootstrap: join(folder, 'rdap-bootstrap.json'),
      key: net.keyDigest,
      control: net.control,
      ports: net.ports,
      pid: process.pid,
    },
    null,
    2,
  ),
);
process.stdout.write('practice net ready\n');
const stop = () => {
  void net.close().then(() => process.exit(0));
  setTimeout(() => process.exit(0), 1000).unref();
};
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
process.on('disconnect', stop);
