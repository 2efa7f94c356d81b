/** What the server proposes for a field of the brief, with where it was read. */
export interface Proposal { field: string; value: unknown; shown: string; from: string }
