/** Files between the browser and its user. */

/** Lets the browser save what is at an address. @param name as the server says where it is left out */
export function saveFrom(address: string, name = ''): void {
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
}

/** Hands a text to the browser as a download. */
export function saveText(name: string, text: string, type = 'application/json'): void {
  const address = URL.createObjectURL(new Blob([text], { type }));
  saveFrom(address, name);
  setTimeout(() => URL.revokeObjectURL(address), 10_000);
}

export const saveJson = (name: string, data: unknown): void =>
  saveText(name, `${JSON.stringify(data, null, 2)}\n`);

/** A name that every file system takes. */
export const fileName = (title: string, ending: string): string =>
  `${
    title
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, '-')
      .replace(/^-|-$/g, '') || 'file'
  }.${ending}`;

/** Reads a chosen file as JSON. @throws Error with a sentence for people */
export async function readJsonFile(file: File, mostBytes = 3_000_000): Promise<unknown> {
  if (file.size > mostBytes)
    throw new Error(`${file.name} is larger than ${Math.round(mostBytes / 1e6)} MB.`);
  try {
    return JSON.parse(await file.text()) as unknown;
  } catch {
    throw new Error(`${file.name} is no JSON file.`);
  }
}
