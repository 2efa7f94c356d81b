/** Full path of a command, or undefined. */
export function findCommand(name: string): string | undefined;
