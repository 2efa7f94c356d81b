/** By name, what each may import, itself included. */
export const ROOMS: ReadonlyMap<string, ReadonlySet<string>>;
export const SUBJECTS: ReadonlyMap<string, ReadonlySet<string>>;
