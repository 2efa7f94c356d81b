/**
 * Joining what two people changed of one document since a version that both began with: each field that only one of
 * them changed is taken from them; where both changed the same, somebody has to say which counts.
 */
import { blank, inOneOrder, shown, type FieldChange } from './fields';

/** What a refusal says of what somebody else has saved meanwhile. */
export interface Overtaken {
  version: number;
  savedBy: string | null;
  /** All that is kept now. */
  now: object;
  /** From what is kept now to what was to be saved. */
  differs: FieldChange[];
}

export interface Clash {
  /** Path of the field, with dots. */
  path: string;
  mine: string;
  theirs: string;
}

export interface Joined<D> {
  /** With my values where both changed the same. */
  document: D;
  /** Fields that only they changed, as paths. */
  taken: string[];
  clashes: Clash[];
}

type Fields = Record<string, unknown>;

const isSame = (a: unknown, b: unknown): boolean => (blank(a) && blank(b)) || inOneOrder(a) === inOneOrder(b);

/** By what the entries of a list are told apart, where they have it. */
const KEYS = ['id', 'check'] as const;

function keyOf(lists: readonly unknown[][]): (typeof KEYS)[number] | undefined {
  return KEYS.find((key) =>
    lists.every((list) => {
      const values = list.map((entry) => (entry as Fields | null)?.[key]);
      return values.every((v) => typeof v === 'string') && new Set(values).size === values.length;
    }),
  );
}

const isFields = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

class Joining {
  readonly taken: string[] = [];
  readonly clashes: Clash[] = [];

  constructor(private readonly theirsAt: ReadonlySet<string>) {}

  join(path: string, base: unknown, mine: unknown, theirs: unknown): unknown {
    if (isSame(mine, theirs) || isSame(base, theirs)) return mine;
    if (isSame(base, mine)) {
      this.taken.push(path);
      return theirs;
    }
    const inside = this.joinInside(path, base, mine, theirs);
    if (inside !== undefined) return inside;
    this.clashes.push({
      path,
      mine: blank(mine) ? '' : shown(mine),
      theirs: blank(theirs) ? '' : shown(theirs),
    });
    return this.theirsAt.has(path) ? theirs : mine;
  }

  /** Where both changed parts of the same, part by part. @returns undefined where it has no parts */
  private joinInside(path: string, base: unknown, mine: unknown, theirs: unknown): unknown {
    if (isFields(mine) && isFields(theirs))
      return this.joinFields(`${path}.`, isFields(base) ? base : {}, mine, theirs);
    if (!Array.isArray(mine) || !Array.isArray(theirs)) return undefined;
    const before = Array.isArray(base) ? base : [];
    const key = keyOf([before, mine, theirs]);
    return key && this.joinEntries(path, key, before as Fields[], mine as Fields[], theirs as Fields[]);
  }

  joinFields(prefix: string, base: Fields, mine: Fields, theirs: Fields): Fields {
    const fields = new Set([...Object.keys(mine), ...Object.keys(theirs)]);
    return Object.fromEntries(
      [...fields]
        .map((f) => [f, this.join(`${prefix}${f}`, base[f], mine[f], theirs[f])] as const)
        .filter(([, value]) => value !== undefined),
    );
  }

  /** In my order, with what they added behind it. */
  private joinEntries(path: string, key: string, base: Fields[], mine: Fields[], theirs: Fields[]): Fields[] {
    const at = (list: Fields[]) => new Map(list.map((entry) => [entry[key] as string, entry]));
    const [before, own, other] = [at(base), at(mine), at(theirs)];
    return [...new Set([...own.keys(), ...other.keys()])].flatMap((id) => {
      const entry = this.join(`${path}.${id}`, before.get(id), own.get(id), other.get(id));
      return entry === undefined ? [] : [entry as Fields];
    });
  }
}

/**
 * @param base what both began with
 * @param theirsAt the paths of clashes where theirs counts; mine everywhere else
 */
export function joinChanges<D extends object>(
  base: object,
  mine: D,
  theirs: object,
  theirsAt: ReadonlySet<string> = new Set(),
): Joined<D> {
  const joining = new Joining(theirsAt);
  const document = joining.joinFields('', base as Fields, mine as Fields, theirs as Fields) as D;
  return { document, taken: joining.taken, clashes: joining.clashes };
}
