import { defineConfig } from '@playwright/test';
import { launch } from './browser';

const port = 4291;

export default defineConfig({
  testDir: '.',
  testMatch: '*.e2e.ts',
  workers: 1,
  timeout: 120_000,
  // A shared machine may be slow for a while; what is waited for has no time of its own.
  expect: { timeout: 20_000 },
  forbidOnly: true,
  reporter: 'list',
  outputDir: '../test-results',
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    timezoneId: 'Europe/Berlin',
    locale: 'de-DE',
    acceptDownloads: true,
    // each test begins with an empty browser: fetching all of the program for later would only slow it
    serviceWorkers: 'block',
    launchOptions: launch,
    trace: 'retain-on-failure',
  },
  webServer: {
    command: `node dist/node/server-main.mjs --port ${port}`,
    cwd: '..',
    url: `http://127.0.0.1:${port}/health`,
    reuseExistingServer: false,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 2000 },
  },
});
