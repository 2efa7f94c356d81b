/** Which of the known pages are read next, where not all of them can be. */
import { addressPattern, structureOf } from '#core/extract/template';
import type { PageFacts } from '#core/extract/html';
import type { PageEvidence } from '#core/facts/evidence';

export interface PageTask {
  url: string;
  from: string | null;
  via: PageEvidence['via'];
  depth: number;
}

/** Pages of one template that are read before other pages have had their turn, however many the home page links to. */
const FROM_HOME = 10;
const OF_TEMPLATE = 3;
/** Beyond so many patterns, the rest counts as one. */
const MOST_PATTERNS = 500;
const OTHERS = 'others';

/** Pages whose addresses have one pattern. */
class Template {
  /** Waiting, in the order of their coming: those that the home page links to, and all others. */
  private readonly waiting: Record<'fromHome' | 'other', PageTask[]> = { fromHome: [], other: [] };
  private readonly structures = new Set<string>();
  /** How many have been chosen. */
  private chosen = 0;

  add(task: PageTask): void {
    this.waiting[task.via === 'link' && task.depth === 1 ? 'fromHome' : 'other'].push(task);
  }

  /** What the home page links to comes first, also where the sitemap named it before. */
  prefer(urls: ReadonlySet<string>): void {
    const { fromHome, other } = this.waiting;
    fromHome.push(...other.filter((t) => urls.has(t.url)));
    this.waiting.other = other.filter((t) => !urls.has(t.url));
  }

  take(): PageTask | undefined {
    this.chosen++;
    return this.waiting.fromHome.shift() ?? this.waiting.other.shift();
  }

  /** Pages of one template may still be built differently: then more of them are read. */
  saw(facts: PageFacts): void {
    this.structures.add(structureOf(facts));
  }

  /** The lower the sooner; undefined where nothing waits. */
  get rank(): number | undefined {
    const { fromHome, other } = this.waiting;
    if (!fromHome.length && !other.length) return undefined;
    const wanted = Math.min(OF_TEMPLATE, 1 + this.structures.size);
    const turn = fromHome.length && this.chosen < FROM_HOME ? 0 : this.chosen < wanted ? 1 : 2;
    return turn * 1_000_000 + this.chosen;
  }
}

/**
 * Known addresses that were not read: the home page, those that the brief requires, those that the home page links to,
 * one to three of each template, then the rest, from all templates in turn; what pages only name comes last.
 */
export class PageQueue {
  private readonly first: PageTask[] = [];
  private readonly named: PageTask[] = [];
  private readonly templates = new Map<string, Template>();
  private waiting = 0;

  get size(): number {
    return this.waiting;
  }

  private template(url: string): Template {
    const pattern = addressPattern(url);
    const key = this.templates.has(pattern) || this.templates.size < MOST_PATTERNS ? pattern : OTHERS;
    let found = this.templates.get(key);
    if (!found) this.templates.set(key, (found = new Template()));
    return found;
  }

  add(task: PageTask): void {
    this.waiting++;
    if (task.via === 'home' || task.via === 'brief') this.first.push(task);
    else if (task.via === 'named') this.named.push(task);
    else this.template(task.url).add(task);
  }

  /** Whether pages wait that are read in any case, the home page first. */
  get hasFirst(): boolean {
    return this.first.length > 0;
  }

  /** Told what the home page links to. */
  prefer(urls: ReadonlySet<string>): void {
    for (const template of this.templates.values()) template.prefer(urls);
  }

  /** Told of each page that was read. */
  saw(task: PageTask, facts: PageFacts): void {
    if (task.via === 'link' || task.via === 'sitemap') this.template(task.url).saw(facts);
  }

  private best(): PageTask | undefined {
    let best: Template | undefined;
    for (const template of this.templates.values())
      if (template.rank !== undefined && template.rank < (best?.rank ?? Infinity)) best = template;
    return best?.take();
  }

  next(): PageTask | undefined {
    const task = this.first.shift() ?? this.best() ?? this.named.shift();
    if (task) this.waiting--;
    return task;
  }

  /** All that waits, in the order in which it would have been read. */
  drain(): PageTask[] {
    const out: PageTask[] = [];
    for (let task = this.next(); task; task = this.next()) out.push(task);
    return out;
  }
}
