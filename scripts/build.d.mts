export function sourceHash(): string;
export function ensureBuild(say: (text: string) => void): boolean;
