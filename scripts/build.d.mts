export function sourceHash(more?: readonly string[]): string;
export function ensureBuild(say: (text: string) => void): boolean;
