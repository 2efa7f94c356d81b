export function newCheck(root: string, id?: string, place?: string): string[];
