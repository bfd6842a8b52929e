import { defineConfig } from '@playwright/test';
import { chromiumPath } from './scripts/packages.mjs';

export default defineConfig({
  testDir: 'e2e/tests',
  outputDir: 'test-results',
  // As many as there are cores: each test keeps one busy.
  workers: 2,
  globalSetup: './e2e/rig/shared.ts',
  fullyParallel: true,
  // The longest take a minute on two busy cores: this only ends what would never end.
  timeout: 180_000,
  expect: { timeout: 15_000 },
  reporter: process.env['PLAYWRIGHT_JSON_OUTPUT_NAME'] ? [['json'], ['line']] : [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    // Each test would lay in the whole application anew; the tests of the field allow it.
    serviceWorkers: 'block',
    // TRACE=1 records every step, at a third more time.
    trace: process.env['TRACE'] ? 'retain-on-failure' : 'off',
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: chromiumPath,
      args: [
        '--no-sandbox',
        '--disable-dev-shm-usage',
        // There is no graphics card where tests run: pages are put together plainly, and the map alone is drawn in software.
        '--disable-gpu',
        '--enable-unsafe-swiftshader',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
      ],
    },
  },
});
