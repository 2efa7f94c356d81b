/** What is closed before the process ends. */
type Close = () => Promise<void> | void;

const closers: Close[] = [];

/** Closes something when the process ends. The last one registered is closed first. */
export function onShutdown(close: Close): void {
  closers.push(close);
}

/** Closes everything. A failure does not stop the others. */
export async function closeAll(): Promise<void> {
  for (const close of closers.splice(0).reverse())
    try {
      await close();
    } catch (error) {
      console.error(`could not be closed: ${(error as Error).message}`);
    }
}
