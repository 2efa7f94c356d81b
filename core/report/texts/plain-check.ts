/** What a check is about, and what it means while it fails: both for people outside the field. */
export type PlainCheck = readonly [about: string, trouble: string];
