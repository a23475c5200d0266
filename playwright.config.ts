import { CHROMIUM } from './scripts/chromium.mjs';
import { defineConfig } from '@playwright/test';

const PORT = 4199;
const REAL_TIME = /(record|devices)\.spec\.ts$/;

export default defineConfig({
  testDir: 'e2e',
  // A machine at half its speed is slow, not wrong.
  timeout: 300_000,
  expect: { timeout: 30_000 },
  workers: 2,
  projects: [
    // Each test has projects of its own; what one waits for leaves the machine to the other.
    { name: 'at once', testIgnore: REAL_TIME, fullyParallel: true },
    // What is recorded as it happens has the machine for itself.
    { name: 'real time', testMatch: REAL_TIME, workers: 1, dependencies: ['at once'] },
  ],
  retries: process.env.CI ? 1 : 0,
  reporter: [['list']],
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    trace: 'on-first-retry',
    launchOptions: CHROMIUM,
  },
  webServer: {
    command: `node scripts/start.mjs`,
    url: `http://127.0.0.1:${PORT}/api/projects`,
    timeout: 240_000,
    env: {
      PORT: String(PORT),
      VISTUM_DATA: process.env.VISTUM_TEST_DATA ?? '/tmp/vistum-e2e',
      // Else each recording that a test brings would be looked through beside the next tests.
      VISTUM_LOOK: 'asked',
    },
    gracefulShutdown: { signal: 'SIGTERM', timeout: 5000 },
  },
});
