/**
 * Refreshes the shipped copy of the RDAP bootstrap (RFC 9224) from a file: `npm run rdap-bootstrap --
 * dns.json`, the file taken from https://data.iana.org/rdap/dns.json.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { readBootstrap } from '#probe/registration/rdap';

const file = process.argv[2];
if (!file) {
  process.stderr.write(
    'usage: npm run rdap-bootstrap -- FILE, where FILE is https://data.iana.org/rdap/dns.json\n',
  );
  process.exit(2);
}
try {
  const bootstrap = readBootstrap(JSON.parse(readFileSync(file, 'utf8')));
  writeFileSync(
    new URL('../probe/registration/bootstrap.json', import.meta.url),
    `${JSON.stringify({ version: '1.0', services: bootstrap.services })}\n`,
  );
  process.stdout.write(
    `${bootstrap.services.reduce((n, [names]) => n + names.length, 0)} top levels written to probe/registration/bootstrap.json\n`,
  );
} catch (error) {
  process.stderr.write(`${file}: ${(error as Error).message}\n`);
  process.exit(2);
}
