import { defineConfig } from '@playwright/test';
import { BASE } from './e2e/server';

export default defineConfig({
  testDir: 'e2e',
  // Nothing is timed: these end what hangs, on the slowest machine.
  timeout: 1_800_000,
  expect: { timeout: 120_000 },
  workers: 2,
  // A test that fails once and then passes is reported as flaky, with what stood on its page.
  retries: 1,
  forbidOnly: true,
  reporter: [['list']],
  use: {
    baseURL: BASE,
    // What a press waits for that never comes is said long before its test gives up.
    actionTimeout: 240_000,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: process.env.ZG_CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-quic',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
