/** Models of all subjects: each file of models says how they are bound, and all are bound once there is a database. */
const binders: (() => void)[] = [];
let isReady = false;

/** Says how models are bound to their tables. */
export function defineModels(bind: () => void): void {
  if (isReady) bind();
  else binders.push(bind);
}

/** Binds all models that are defined, and from now on each when it is. */
export function useModels(): void {
  isReady = true;
  for (const bind of binders.splice(0)) bind();
}
