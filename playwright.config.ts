import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { defineConfig } from '@playwright/test';

// `npm test` takes a port that is free; by hand there is the usual one.
const PORT = Number(process.env.TROWEL_PORT ?? 4871);

/** Drives the built application as it is served, in Debian's Chromium. Build first: `npm run build`. */
export default defineConfig({
  testDir: 'e2e',
  outputDir: 'test-results',
  // A busy machine is slow, not wrong: what is meant to be quick says so in its own test.
  timeout: 600_000,
  expect: { timeout: 45_000 },
  fullyParallel: true,
  workers: 3,
  // `npm test` asks once more, alone, for what failed beside everything else, and lists it by name.
  retries: 0,
  reporter: 'list',
  use: {
    // Each test has a browser of its own, which would fetch the whole page first; the test of that lets it.
    serviceWorkers: 'block',
    // Nothing of this leaves the machine, so nothing is worth packing.
    extraHTTPHeaders: { 'accept-encoding': 'identity' },
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    timezoneId: 'Europe/London',
    locale: 'en-GB',
    trace: process.env.TROWEL_TRACE === undefined ? 'off' : 'retain-on-failure',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-component-update',
        '--no-first-run',
      ],
    },
  },
  webServer: {
    // Tied to this run: killed in the middle, no server is left that the next run would meet.
    command: `exec node scripts/tied.mjs node_modules/.bin/tsx gateway/src/main.ts --port ${PORT} --mqtt-port 0 --data ${join(tmpdir(), `trowel-e2e-${PORT}-${process.pid}`)}`,
    url: `http://127.0.0.1:${PORT}/healthz`,
    reuseExistingServer: false,
    // The browser’s tests begin while types are checked beside them: on a slow machine a server takes its time.
    timeout: 240_000,
  },
});
