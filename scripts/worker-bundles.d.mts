/** @returns the file */
export function bundleBuildsWorker(outfile: string): Promise<string>;
/** @returns the file */
export function bundleCompareWorker(outfile: string): Promise<string>;
/** @returns the file */
export function bundleExtractWorker(outfile: string): Promise<string>;
/** @returns the file */
export function bundleJudgeWorker(outfile: string): Promise<string>;
/** @returns the file */
export function bundle(entry: string, outfile: string): Promise<string>;
/** @returns the file */
export function bundlePagesWorker(outfile: string): Promise<string>;
export function bundleTablesWorker(outfile: string): Promise<string>;
/** @returns the file */
export function bundlePicturesWorker(outfile: string): Promise<string>;
