/** A name that nothing has yet: "Full copy", "Full copy 2". */
export function unusedName(wanted: string, taken: readonly string[]): string {
  let name = wanted;
  for (let n = 2; taken.includes(name); n++) name = `${wanted} ${n}`;
  return name;
}
