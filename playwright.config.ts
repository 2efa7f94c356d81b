import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: 'tests/e2e',
  outputDir: 'test-results/e2e',
  // a machine that many share is at times many times slower; what passes does not wait
  timeout: 300_000,
  expect: { timeout: 45_000 },
  // each has a demo of its own
  workers: 2,
  retries: 0,
  fullyParallel: false,
  globalSetup: './tests/fresh-build.ts',
  reporter: [['list'], ['json', { outputFile: 'test-results/e2e.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    actionTimeout: 45_000,
    // nothing is clicked while it still moves
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: {
      executablePath: process.env.ARMBAND_CHROMIUM ?? '/usr/bin/chromium',
      args: [
        ...(process.getuid?.() === 0 ? ['--no-sandbox'] : []),
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
      ],
    },
  },
});
