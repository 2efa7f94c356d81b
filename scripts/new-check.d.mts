export function newCheck(root: string, id?: string): string[];
