/** Reading an uploaded build: what the thread does. */
import { siteBuild, zippedFiles } from '#probe/build-files';

export interface BuildJob {
  name: string;
  zip: Uint8Array;
}

/** @returns the build as JSON; @throws RangeError with a sentence for people */
export const readBuild = async ({ name, zip }: BuildJob): Promise<string> =>
  JSON.stringify(await siteBuild(name, await zippedFiles(zip)));
