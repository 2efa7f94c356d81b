/** Which faults are switched on, site by site; kept in a file when one is given. */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { FAULTS } from './faults';
import { SITES } from './sites';
import { Desk } from './desk';
import { PracticeClock } from './practice-clock';
import { TypedTexts } from './typed-texts';
import { UploadedFiles } from './uploaded-files';

export type PracticeEnvironment = 'live' | 'staging';

export class FaultSwitches {
  private readonly on = new Set<string>();
  /** Texts of pages, which are kept beside. */
  readonly texts: TypedTexts;
  readonly files: UploadedFiles;
  /** What hands have set at registrar, operator and host. */
  readonly desk: Desk;

  /** @param file remembered switches; the planted faults of a fresh demo when it is not there */
  constructor(
    private readonly file?: string,
    planted = true,
    clock = new PracticeClock(() => new Date()),
  ) {
    this.desk = new Desk(file && join(dirname(file), 'desk.json'), clock.now);
    this.texts = new TypedTexts(file && join(dirname(file), 'texts.json'));
    this.files = new UploadedFiles(file && join(dirname(file), 'files.json'));
    if (file && existsSync(file)) {
      for (const key of JSON.parse(readFileSync(file, 'utf8')) as string[]) this.on.add(key);
      return;
    }
    if (planted)
      for (const s of SITES) {
        for (const f of s.live) this.on.add(`${s.slug} live ${f}`);
        for (const f of s.before) this.on.add(`${s.slug} staging ${f}`);
      }
  }

  isOn(slug: string, environment: PracticeEnvironment, fault: string): boolean {
    return this.on.has(`${slug} ${environment} ${fault}`);
  }
  reader(slug: string, environment: PracticeEnvironment): (fault: string) => boolean {
    return (fault) => this.isOn(slug, environment, fault);
  }

  /** @throws RangeError when there is no such site or fault */
  set(slug: string, environment: PracticeEnvironment, fault: string, on: boolean): void {
    if (!SITES.some((s) => s.slug === slug) || !FAULTS.some((f) => f.id === fault))
      throw new RangeError('no such site or fault');
    const key = `${slug} ${environment} ${fault}`;
    if (on) this.on.add(key);
    else this.on.delete(key);
    if (this.file) writeFileSync(this.file, JSON.stringify([...this.on]));
  }
}
