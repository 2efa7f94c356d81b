/** A folder or an archive from the user, as one ZIP for the server. */
import { zip, type AsyncZippable } from 'fflate';
import { isLitter } from '#core/compare/build';

/** Files with their paths. */
export type PathedFile = { path: string; file: File };

/** What was dropped: files, and all that lies in folders. */
export async function droppedFiles(items: DataTransferItemList): Promise<PathedFile[]> {
  const out: PathedFile[] = [];
  const read = async (entry: FileSystemEntry, folder: string): Promise<void> => {
    const path = `${folder}${entry.name}`;
    if (entry.isFile) {
      const file = await new Promise<File>((resolve, reject) =>
        (entry as FileSystemFileEntry).file(resolve, reject),
      );
      out.push({ path, file });
      return;
    }
    const reader = (entry as FileSystemDirectoryEntry).createReader();
    // a reader gives some at a time, and none once it is through
    for (;;) {
      const some = await new Promise<FileSystemEntry[]>((resolve, reject) =>
        reader.readEntries(resolve, reject),
      );
      if (!some.length) return;
      for (const one of some) await read(one, `${path}/`);
    }
  };
  // the list is emptied as soon as the event is over
  const entries = [...items].flatMap((item) => item.webkitGetAsEntry() ?? []);
  for (const entry of entries) await read(entry, '');
  return out;
}

/** Files that were chosen, with their paths within the folder. */
export const chosenFiles = (files: FileList): PathedFile[] =>
  [...files].map((file) => ({ path: file.webkitRelativePath || file.name, file }));

/** @returns a ZIP as it is, or one made of these files. @throws Error with a sentence for people */
export async function asZip(files: readonly PathedFile[]): Promise<{ name: string; bytes: Uint8Array }> {
  const kept = files.filter(({ path }) => !isLitter(path));
  const [first] = kept;
  if (!first) throw new Error('There is no file in it.');
  if (kept.length === 1 && /\.zip$/i.test(first.path))
    return { name: first.file.name, bytes: new Uint8Array(await first.file.arrayBuffer()) };
  const entries: AsyncZippable = {};
  for (const { path, file } of kept) entries[path] = new Uint8Array(await file.arrayBuffer());
  const bytes = await new Promise<Uint8Array>((resolve, reject) =>
    zip(entries, { level: 6 }, (error, data) => (error ? reject(error) : resolve(data))),
  );
  return { name: first.path.split('/')[0]!, bytes };
}
