/** What makes a run sheet’s template unusable. */
import type { LaunchTemplate } from '#core/facts/launch';

/** @param known ids of checks, where they are known; @returns a sentence for each fault */
export function templateFaults({ steps }: LaunchTemplate, known?: ReadonlySet<string>): string[] {
  const ids = new Set<string>();
  const faults: string[] = [];
  for (const { id, title } of steps) {
    if (ids.has(id)) faults.push(`Two steps have the id ${id}: “${title}” is the second.`);
    ids.add(id);
  }
  for (const { title, after, proofs } of steps) {
    for (const id of after) if (!ids.has(id)) faults.push(`“${title}” waits for ${id}, which is no step.`);
    for (const { kind, check, environment } of proofs) {
      if (kind === 'check' && (!check || !environment))
        faults.push(`A proof of “${title}” names no check, or not where it looks.`);
      else if (check && known && !known.has(check))
        faults.push(`“${title}” is proven by ${check}, which is no check.`);
    }
  }
  const circle = circleOf({ steps });
  return circle ? [...faults, `These steps wait for each other: ${circle.join(', ')}.`] : faults;
}

/** Titles of steps that wait for each other. */
function circleOf({ steps }: LaunchTemplate): string[] | undefined {
  const byId = new Map(steps.map((s) => [s.id, s]));
  const done = new Set<string>();
  const walk = (id: string, path: string[]): string[] | undefined => {
    if (path.includes(id)) return path.slice(path.indexOf(id));
    if (done.has(id)) return undefined;
    for (const next of byId.get(id)?.after ?? []) {
      const circle = walk(next, [...path, id]);
      if (circle) return circle;
    }
    done.add(id);
    return undefined;
  };
  for (const { id } of steps) {
    const circle = walk(id, []);
    if (circle) return circle.map((one) => byId.get(one)!.title);
  }
  return undefined;
}
