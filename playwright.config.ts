import { defineConfig } from '@playwright/test';

const port = Number(process.env.PORT ?? 4321);

/** The real interface: the built app in Debian's Chromium. */
export default defineConfig({
  testDir: 'e2e',
  fullyParallel: true,
  workers: 3,
  timeout: 180_000,
  // A machine shared with others may be several times slower than the one the tests were written on.
  expect: { timeout: 20_000 },
  forbidOnly: true,
  reporter: process.env.PLAYWRIGHT_JSON_OUTPUT_NAME ? [['list'], ['json']] : [['list']],
  use: {
    baseURL: `http://localhost:${port}`,
    viewport: { width: 1280, height: 800 },
    // Tests put faults between the page and its server; with the app kept in the browser there would be no server to miss.
    serviceWorkers: 'block',
    trace: process.env.TRACE === undefined ? 'off' : 'retain-on-failure',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-background-networking'],
    },
  },
  webServer: {
    command: `node_modules/.bin/next start -p ${port}`,
    port,
    reuseExistingServer: false,
    env: { NEXT_TELEMETRY_DISABLED: '1' },
  },
});
