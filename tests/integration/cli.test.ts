/** The command line as a process, against the practice net. */
import { spawn } from 'node:child_process';
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { CATALOGUE } from '#core/checks/catalogue/index';
import { COMMAND } from '../../scripts/build-cli.mjs';
import { officialFacts, startPracticeNet, type PracticeNet } from '../../net/practice-net';

let net: PracticeNet;
const folder = mkdtempSync(join(tmpdir(), 'armband-cli-'));
const file = (name: string, content?: unknown): string => {
  const path = join(folder, name);
  if (content !== undefined)
    writeFileSync(path, typeof content === 'string' ? content : JSON.stringify(content));
  return path;
};
beforeAll(async () => {
  net = await startPracticeNet({ planted: false });
  file('ca.pem', net.caPem);
  file('rdap-bootstrap.json', JSON.stringify(net.bootstrap));
  file('brief.json', officialFacts('planetarium'));
});
afterAll(() => net.close());

interface Ran {
  code: number | null;
  out: string;
  err: string;
}
function audit(...args: string[]): Promise<Ran> {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, [COMMAND, ...args]);
    let out = '',
      err = '';
    child.stdout.on('data', (d) => {
      out += String(d);
    });
    child.stderr.on('data', (d) => {
      err += String(d);
    });
    child.on('close', (code) => resolve({ code, out, err }));
  });
}
const network = () => [
  '--resolver',
  net.resolver,
  '--ca',
  file('ca.pem'),
  '--rdap-bootstrap',
  file('rdap-bootstrap.json'),
  ...net.map.flatMap((m) => ['--map', m]),
];
interface Result {
  score: number;
  gate: string;
  findings: { check: string; outcome: string; credit: number | null; places: { place: string }[] }[];
}

describe('npm run audit', () => {
  it('exit 0 and clear for a good site; the stored evidence gives the same without a network', async () => {
    const ran = await audit(
      'https://tarn-planetarium.example/',
      ...network(),
      '--brief',
      file('brief.json'),
      '--format',
      'json',
      '--evidence',
      file('e.json'),
    );
    expect(ran.code, ran.err).toBe(0);
    const result = JSON.parse(ran.out) as Result;
    expect(result).toMatchObject({
      version: 2,
      target: 'https://tarn-planetarium.example/',
      situation: 'live',
      score: 100,
      lost: 0,
      gate: 'clear',
    });
    expect(result.findings.every((f) => !f.check.startsWith('delivery.backup'))).toBe(true);
    const again = await audit(
      '--from-evidence',
      file('e.json'),
      '--brief',
      file('brief.json'),
      '--format',
      'json',
    );
    expect(again.out).toBe(ran.out);
    expect(again.code).toBe(0);
    expect(again.err).toContain('Manual checks are left out');
  });
  it('exit 1 when a blocker fails, and text that names it', async () => {
    net.switches.set('planetarium', 'live', 'noindex-left', true);
    try {
      const ran = await audit(
        'https://tarn-planetarium.example/',
        ...network(),
        '--brief',
        file('brief.json'),
      );
      expect(ran.code).toBe(1);
      expect(ran.out).toMatch(/BLOCKER {2}.+ \(indexing\.let-in\), 20 points\n +expected no noindex/);
    } finally {
      net.switches.set('planetarium', 'live', 'noindex-left', false);
    }
  });
  it('exit 3 when a blocker is undecided: no brief says which records should be there', async () => {
    expect((await audit('https://tarn-planetarium.example/', ...network())).code).toBe(3);
  });
  it('attestations bring the manual checks in', async () => {
    file('att.json', [{ check: 'delivery.backup', done: true, by: 'Joss Teal', at: '2026-11-01T00:00:00Z' }]);
    const ran = await audit(
      '--from-evidence',
      file('e.json'),
      '--brief',
      file('brief.json'),
      '--attestations',
      file('att.json'),
      '--format',
      'json',
    );
    const of = (id: string) => (JSON.parse(ran.out) as Result).findings.find((f) => f.check === id)?.outcome;
    expect(of('delivery.backup')).toBe('passed');
    expect(of('delivery.accounts')).toBe('untested');
    expect(ran.err).toBe('');
  });
  it('a checklist and a host profile decide what is asked', async () => {
    file('list.json', { name: 'Short', version: 1, items: [{ check: 'sharing.favicon', weight: 7 }] });
    file('profile.json', { name: 'F', icons: { required: [99] } });
    const ran = await audit(
      '--from-evidence',
      file('e.json'),
      '--checklist',
      file('list.json'),
      '--host-profile',
      file('profile.json'),
      '--format',
      'json',
      '--out',
      file('out.json'),
    );
    expect(ran.out).toBe('');
    expect(JSON.parse(readFileSync(file('out.json'), 'utf8'))).toMatchObject({
      findings: [{ check: 'sharing.favicon', outcome: 'failed', weight: 7, credit: 0 }],
    });
  });
  it('exit 2 for wrong words, wrong files and silence, with a sentence each and nothing on standard output', async () => {
    for (const [args, words] of [
      [['--nonsense'], 'usage:'],
      [['https://a.example', '--brief', file('none.json')], 'does not exist'],
      [['https://a.example', '--brief', file('bad.json', '{')], 'is no JSON'],
      [['https://a.example', '--brief', file('odd.json', { nmae: 'x' })], 'nmae'],
      [['https://a.example', '--map', 'x'], '--map takes'],
    ] as const) {
      const ran = await audit(...args);
      expect(ran, args.join(' ')).toMatchObject({ code: 2, out: '' });
      expect(ran.err).toContain(words);
    }
    const silent = await audit('https://no-such-site.example/', ...network(), '--timeout', '2');
    expect(silent.code).toBe(2);
    expect(silent.err).toContain('does not exist');
  });
  it('refuses loopback and private addresses unless told otherwise', async () => {
    const ran = await audit(`http://127.0.0.1:${net.ports.http}/`, '--format', 'json');
    expect(ran.code).toBe(2);
    expect(ran.err).toContain('loopback');
    expect((await audit(`http://127.0.0.1:${net.ports.http}/`, '--allow-private')).code).not.toBe(2);
  });
  it('evidence goes out as HAR and zone file, and comes in again: nothing fails that did not before', async () => {
    const before = JSON.parse(
      (
        await audit(
          '--from-evidence',
          file('e.json'),
          '--brief',
          file('brief.json'),
          '--format',
          'json',
          '--har',
          file('e.har'),
          '--zone',
          file('e.zone'),
        )
      ).out,
    ) as Result;
    expect(JSON.parse(readFileSync(file('e.har'), 'utf8'))).toMatchObject({
      log: { version: '1.2', creator: { name: 'Armband' } },
    });
    expect(readFileSync(file('e.zone'), 'utf8')).toMatch(
      /^tarn-planetarium\.example\. 3600 IN A 192\.0\.2\.10$/m,
    );
    const after = JSON.parse(
      (
        await audit(
          'https://tarn-planetarium.example/',
          '--from-har',
          file('e.har'),
          '--from-zone',
          file('e.zone'),
          '--brief',
          file('brief.json'),
          '--format',
          'json',
        )
      ).out,
    ) as Result;
    const failed = (r: Result) => r.findings.filter((f) => f.outcome === 'failed').map((f) => f.check);
    expect(failed(after)).toEqual(failed(before));
    expect(after.findings.find((f) => f.check === 'domain.resolves')!.outcome).toBe('passed');
    expect(after.findings.find((f) => f.check === 'https.certificate-valid')!.outcome).toBe('cantTell');
  });
  it('access stands in a file, and opens staging', async () => {
    file('key.json', { kind: 'credentials', user: 'marram', password: 'draft-boats-755' });
    const url = 'https://boats.cairn-draft.example/';
    const shut = JSON.parse(
      (await audit(url, ...network(), '--situation', 'staging', '--format', 'json')).out,
    ) as Result;
    const open = await audit(
      url,
      ...network(),
      '--situation',
      'staging',
      '--format',
      'json',
      '--access',
      file('key.json'),
      '--evidence',
      file('staging.json'),
    );
    const title = (r: Result) => r.findings.find((f) => f.check === 'metadata.title-present')!.outcome;
    expect([title(shut), title(JSON.parse(open.out) as Result)]).toEqual(['cantTell', 'passed']);
    expect(readFileSync(file('staging.json'), 'utf8')).not.toContain('draft-boats-755');
    expect((await audit(url, '--way-in', file('bad-key.json', { kind: 'magic' }))).err).toContain(
      '“kind” is credentials',
    );
  });
  it('--only asks for what these checks rest on, and judges them alone', async () => {
    const ran = await audit(
      'https://tarn-planetarium.example/',
      ...network(),
      '--brief',
      file('brief.json'),
      '--only',
      'domain.spf,domain.records-match',
      '--format',
      'json',
      '--evidence',
      file('only.json'),
    );
    expect(ran.code, ran.err).toBe(0);
    const { findings } = JSON.parse(ran.out) as Result;
    expect(findings.map((f) => [f.check, f.outcome])).toEqual([
      ['domain.records-match', 'passed'],
      ['domain.spf', 'passed'],
    ]);
    const evidence = JSON.parse(readFileSync(file('only.json'), 'utf8')) as Record<string, unknown[]>;
    expect(evidence.pages).toEqual([]);
    expect(evidence.hosts).toEqual([]);
    const wrong = await audit('https://tarn-planetarium.example/', '--only', 'domain.magic');
    expect(wrong.code).toBe(2);
    expect(wrong.err).toContain('has no check “domain.magic”');
  });
  it('--render looks at pages in a browser, and --build holds a folder against what is served', async () => {
    const { requiredPages: _, ...brief } = officialFacts('planetarium');
    const build = join(folder, 'dist');
    mkdirSync(join(build, 'a'), { recursive: true });
    writeFileSync(join(build, 'index.html'), '<title>x</title><p>Other words.</p>');
    writeFileSync(join(build, 'a', 'gone.css'), 'x');
    const pictures = join(folder, 'pictures');
    const ran = await audit(
      'https://tarn-planetarium.example/',
      ...network(),
      '--brief',
      file('short-brief.json', brief),
      '--only',
      'delivery.script-errors,verification.hits-seen,delivery.matches-build',
      '--render',
      '0',
      '--browser-key',
      net.keyDigest,
      '--pictures',
      pictures,
      '--build',
      build,
      '--format',
      'json',
    );
    const { findings } = JSON.parse(ran.out) as Result;
    expect(findings.map((f) => [f.check, f.outcome])).toEqual([
      ['verification.hits-seen', 'passed'],
      ['delivery.matches-build', 'failed'],
      ['delivery.script-errors', 'passed'],
    ]);
    expect(readdirSync(pictures).length).toBeGreaterThanOrEqual(2);
    const wrong = await audit('https://tarn-planetarium.example/', '--build', '/nowhere');
    expect([wrong.code, wrong.err]).toEqual([2, expect.stringContaining('--build /nowhere') as string]);
    expect((await audit('https://tarn-planetarium.example/', '--pictures', pictures)).err).toContain(
      '--pictures goes with --render',
    );
  });
  it('--list gives the catalogue', async () => {
    const list = JSON.parse((await audit('--list')).out) as { id: string; situations: string[] }[];
    expect(list.map((c) => c.id)).toEqual(CATALOGUE.map((c) => c.id));
    expect(list.find((c) => c.id === 'indexing.kept-out')).toMatchObject({
      section: 'indexing',
      severity: 'blocker',
      situations: ['staging', 'holding'],
      scope: 'page',
      source: 'RFC 9309; common practice',
      parameters: {},
    });
  });
});
