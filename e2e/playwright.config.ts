import { defineConfig } from '@playwright/test';

/**
 * Flags with which Debian's Chromium draws WebGL without a graphics card, as root too, and talks to nobody. How it draws the page it chooses itself: told to use
 * the card that is not there, it would paint the page too as if with one, which takes twice as long.
 */
export const chromiumFlags = [
  '--no-sandbox',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--enable-unsafe-swiftshader',
];

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  outputDir: '../test-results',
  workers: 1,
  // Long enough for a machine that has little time for us; what is waited for is told by the page, not by the clock.
  timeout: 300_000,
  expect: { timeout: 40_000 },
  // A browser without a graphics card now and then leaves an action hanging: it is told of as flaky, and tried once more.
  retries: 1,
  reporter: [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    // What hangs says where.
    actionTimeout: 60_000,
    launchOptions: { executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium', args: chromiumFlags },
    // Recording takes a good part of the time: TRACE=yes turns it on.
    trace: process.env.TRACE === 'yes' ? 'retain-on-failure' : 'off',
  },
});
