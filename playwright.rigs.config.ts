import { defineConfig } from '@playwright/test';
import browser from './playwright.config';

const { globalSetup: _shared, ...base } = browser;

/** What is tried from a terminal: kills, starts, backups, benches. Much of it is waiting: it runs beside the unit tests. */
export default defineConfig({
  ...base,
  testDir: 'e2e/rigs',
  outputDir: 'test-results/rigs',
  // They run beside the unit tests, which fill the machine: this only ends what would never end.
  timeout: 600_000,
  workers: 1,
  fullyParallel: false,
});
