import { defineConfig } from 'vitest/config';

const decorators = { tsconfigRaw: { compilerOptions: { experimentalDecorators: true, useDefineForClassFields: false } } };

export default defineConfig({
  test: {
    projects: [
      { esbuild: decorators, test: { name: 'unit', include: ['{core,probe,net,cli,server,app}/**/*.test.ts', 'tests/conformance/**/*.test.ts', 'tests/hostile/**/*.test.ts'], environment: 'node', testTimeout: 20_000 } },
      { esbuild: decorators, test: { name: 'integration', include: ['tests/integration/**/*.test.ts'], environment: 'node', testTimeout: 120_000, hookTimeout: 120_000, fileParallelism: false } },
    ],
  },
});
