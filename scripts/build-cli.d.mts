/** The command's file. */
export const COMMAND: string;
/** Makes the command where it is missing, or a source is newer. @returns its file */
export function ensureCommand(): Promise<string>;
