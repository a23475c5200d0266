import { CHROMIUM } from './scripts/chromium.mjs';
import { defineConfig } from '@playwright/test';

const PORT = 4199;

export default defineConfig({
  testDir: 'e2e',
  // A machine at half its speed is slow, not wrong.
  timeout: 300_000,
  expect: { timeout: 30_000 },
  // Each test has projects of its own; what one waits for leaves the machine to the other.
  workers: 2,
  fullyParallel: true,
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
