import { defineConfig } from '@playwright/test';
import { PORTS } from './server/serve';

/** Debian's Chromium, started so that it calls nowhere. */
export const CHROMIUM_ARGS = [
  '--no-sandbox',
  '--disable-gpu',
  // Shared memory is small in many containers, and a page that runs out of it crashes.
  '--disable-dev-shm-usage',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

export default defineConfig({
  testDir: 'e2e',
  outputDir: '.cache/e2e',
  fullyParallel: true,
  workers: 3,
  retries: 0,
  forbidOnly: Boolean(process.env.CI),
  reporter: 'list',
  // Only when to give up: a busy machine is no reason to fail.
  timeout: 300_000,
  expect: { timeout: 45_000 },
  use: {
    baseURL: `http://127.0.0.1:${PORTS.test}`,
    actionTimeout: 60_000,
    viewport: { width: 1280, height: 800 },
    contextOptions: { reducedMotion: 'reduce' },
    timezoneId: 'Europe/Amsterdam',
    locale: 'en-GB',
    // What is kept for offline use is fetched behind every page; the test of it lets it.
    serviceWorkers: 'block',
    screenshot: 'only-on-failure',
    launchOptions: { executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium', args: CHROMIUM_ARGS },
  },
  // The demo is served beside it.
  webServer: { command: 'npx tsx server/main.ts test', url: `http://127.0.0.1:${PORTS.test}/inkpath`, reuseExistingServer: false },
});
