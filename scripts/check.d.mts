export declare function changedSince(commit: string): string[];
export declare function faultsOf(files: readonly string[], table: string): string[];
