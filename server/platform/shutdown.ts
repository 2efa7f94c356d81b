/** What has to be closed before the process ends; whoever opens it says so. */
type Close = () => Promise<void> | void;

const closers: Close[] = [];

/** Closes something when the process ends: what was opened last comes first. */
export function onShutdown(close: Close): void {
  closers.push(close);
}

/** Closes everything; what cannot be closed stops nothing else. */
export async function closeAll(): Promise<void> {
  for (const close of closers.splice(0).reverse())
    try {
      await close();
    } catch (error) {
      console.error(`could not be closed: ${(error as Error).message}`);
    }
}
