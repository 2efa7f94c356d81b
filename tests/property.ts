/**
 * Generated cases are the same in every run, so that one that fails fails again. `ARMBAND_SEED=7 npx vitest
 * …` looks at others.
 */
import fc from 'fast-check';

fc.configureGlobal({ seed: Number(process.env.ARMBAND_SEED ?? 20_261_126) });

export default fc;
