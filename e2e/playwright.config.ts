import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: '.',
  outputDir: '../test-results',
  // By their names: the longest journey is the first, so that none is left over alone at the end.
  fullyParallel: true,
  // A third would be done a fifth sooner on two quiet cores; on busy ones the journeys get in each other's way.
  workers: 2,
  // Each step has its own; this one ends what waits for nothing, on a machine that others have kept busy for minutes.
  timeout: 600_000,
  // Two cores run two browsers, two servers and PostgreSQL; a busy disk holds a commit for seconds.
  expect: { timeout: 20_000 },
  reporter: [['list'], ['json']],
  use: {
    actionTimeout: 30_000,
    viewport: { width: 1280, height: 800 },
    // Colours are looked at while they stand, not while they change.
    contextOptions: { reducedMotion: 'reduce' },
    // A trace costs half the time on two cores; ask for one with `npm test -- journeys --trace on`.
    trace: 'off',
    launchOptions: {
      executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium-headless-shell',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        // All pages are Barys' own: one process for them has its scripts compiled already when the next page asks for them.
        '--renderer-process-limit=1',
        '--disable-site-isolation-trials',
        '--in-process-gpu',
      ],
    },
  },
});
