import { defineConfig } from 'vitest/config';

const decorators = {
  tsconfigRaw: { compilerOptions: { experimentalDecorators: true, useDefineForClassFields: false } },
};

export default defineConfig({
  test: {
    // one less than there are processors otherwise, which is one on small machines
    maxWorkers: 2,
    projects: [
      {
        esbuild: decorators,
        test: {
          name: 'unit',
          // the catalogue need not be loaded anew for each file: what is computed there keeps nothing
          isolate: false,
          include: [
            '{core,probe,net,cli,server,app,scripts}/**/*.test.ts',
            'tests/conformance/**/*.test.ts',
            'tests/hostile/**/*.test.ts',
          ],
          environment: 'node',
          testTimeout: 120_000,
        },
      },
      {
        esbuild: decorators,
        test: {
          name: 'faults',
          include: ['tests/faults/**/*.test.ts'],
          environment: 'node',
          testTimeout: 300_000,
          hookTimeout: 300_000,
        },
      },
      {
        esbuild: decorators,
        test: {
          name: 'real-servers',
          // one after the other: servers of Debian’s, and pages that take all that a processor has
          include: ['tests/real-servers/**/*.test.ts', 'tests/rendering/**/*.test.ts'],
          environment: 'node',
          testTimeout: 120_000,
          hookTimeout: 60_000,
          fileParallelism: false,
        },
      },
      {
        esbuild: decorators,
        test: {
          name: 'integration',
          include: ['tests/integration/**/*.test.ts'],
          globalSetup: ['tests/fresh-build.ts'],
          environment: 'node',
          testTimeout: 300_000,
          hookTimeout: 300_000,
        },
      },
    ],
  },
});
