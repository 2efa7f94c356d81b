/** `npm run bench`: speed as ratios, a line each: "NAME: ratio R, goal <= G". */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Parser } from 'htmlparser2';
import { extractPage } from '#core/extract/html';
import { collect } from '#probe/collect';
import { TrustStore } from '#probe/tls';
import type { Brief } from '#core/facts/brief';
import type { Evidence } from '#core/facts/evidence';
import { pagesOf, renderPage } from '../../net/pages';
import { SITES } from '../../net/sites';
import { realPages } from '../real-pages';
import { benchHostileSite } from './hostile-site';
import { benchLargeSite } from './large-site';
import { benchProbing } from './probing';
import { benchReevaluating } from './reevaluating';
import { judgeApart } from './judge-apart';
import { benchManySites } from './many-sites';
import { benchPages } from './pages';
import { benchComparing } from './comparing';
import { benchTyping } from './typing';
import { ratio } from './ratio';
import { benchWholeAudits } from './whole-audits';

/** Extracting facts against a bare pass of htmlparser2, from the same bytes. */
function extraction(name: string, pages: Buffer[]): Promise<boolean> {
  const decoder = new TextDecoder();
  process.stderr.write(
    `  ${pages.length} pages, ${Math.round(pages.reduce((n, p) => n + p.length, 0) / 1000)} kB\n`,
  );
  return ratio(
    name,
    2.0,
    () => {
      for (const p of pages) extractPage(decoder.decode(p), 'https://a.example/');
    },
    () => {
      let seen = 0;
      for (const p of pages) {
        const parser = new Parser({
          onopentag: () => {
            seen++;
          },
          ontext: (t) => {
            seen += t.length;
          },
          onclosetag: () => {
            seen--;
          },
        });
        parser.end(decoder.decode(p));
      }
      return seen;
    },
  );
}

interface NetFile {
  resolver: string;
  map: string[];
  ca: string;
  control: string;
}
interface State {
  sites: { slug: string; stage: string; liveUrl: string; brief: Brief }[];
}

async function main(): Promise<void> {
  const { spawn } = await import('node:child_process');
  const folder = '.test/bench';
  const child = spawn(process.execPath, ['--import', 'tsx/esm', 'net/start.ts', folder], {
    stdio: ['ignore', 'pipe', 'inherit', 'ipc'],
    env: { ...process.env, TSX_TSCONFIG_PATH: 'tsconfig.scripts.json' },
  });
  await new Promise<void>((resolve, reject) => {
    child.stdout!.once('data', () => resolve());
    child.once('exit', () => reject(new Error('the practice net did not start')));
  });
  // first, since memory is measured at its peak
  let good = await benchProbing();
  try {
    const net = JSON.parse(readFileSync(join(folder, 'net.json'), 'utf8')) as NetFile;
    const sites = ((await (await fetch(`${net.control}/state`)).json()) as State).sites.filter(
      (s) => s.stage === 'launched',
    );
    const ca = readFileSync(net.ca, 'utf8');
    const store = new TrustStore([ca]);
    const look = (s: State['sites'][number]): Promise<Evidence> =>
      collect({
        url: s.liveUrl,
        kind: 'live',
        brief: s.brief,
        resolvers: [net.resolver],
        map: net.map,
        store,
        retryPauseMs: 1,
      });

    const documents = realPages(400).map((p) => p.bytes);
    const shown = SITES.filter((s) => s.slug !== 'curlew').flatMap((site) => {
      const all = pagesOf(site);
      return all.map((p) =>
        Buffer.from(
          renderPage(p, all, {
            site,
            origin: `https://${site.domain}`,
            prefix: '/',
            environment: 'live',
            on: () => false,
            year: 2026,
            stagingOrigin: 'https://draft.example/',
          }),
        ),
      );
    });
    good =
      (await extraction(
        'extracting the pages of the practice net',
        Array.from({ length: 4 }, () => shown).flat(),
      )) && good;
    good = (await extraction(`extracting ${documents.length} real pages`, documents)) && good;

    // fifty pages: those of a demo site, repeated under other addresses
    const evidence = await look(sites[0]!);
    const fifty: Evidence = {
      ...evidence,
      pages: Array.from({ length: 50 }, (_, i) => {
        const p = evidence.pages[i % evidence.pages.length]!;
        return i < evidence.pages.length
          ? p
          : { ...p, url: `${p.url}${i}/`, requested: `${p.url}${i}/`, via: 'link' as const };
      }),
    };
    // and with what stands on fifty real pages, which are longer than those of the practice net
    const decoder = new TextDecoder();
    const real = documents
      .filter((p) => p.length > 8_000 && p.length < 80_000)
      .slice(0, 50)
      .map((p) => decoder.decode(p));
    const long: Evidence = {
      ...fifty,
      pages: fifty.pages.map((p, i) => (i ? { ...p, facts: extractPage(real[i % real.length]!, p.url) } : p)),
    };
    good = (await judgeApart('evaluating the checks over 50 real pages', long, sites[0]!.brief)) && good;
    good = (await judgeApart('evaluating the checks over 50 short pages', fifty, sites[0]!.brief)) && good;

    good = (await benchReevaluating(evidence, sites[0]!.brief)) && good;
    good = (await benchLargeSite(net, ca)) && good;
    good = (await benchHostileSite()) && good;
    good = (await benchManySites()) && good;
    good = (await benchPages()) && good;
    good = (await benchTyping()) && good;
    good = (await benchComparing()) && good;
    good = (await benchWholeAudits()) && good;
  } finally {
    child.kill('SIGTERM');
  }
  if (!good) process.exitCode = 1;
}

await main();
