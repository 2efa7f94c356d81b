export function evidenceSchema(): string;
