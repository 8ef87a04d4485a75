import { defineConfig } from '@playwright/test'
import { CHROMIUM, CHROMIUM_FLAGS } from './tests/support/chromium.ts'

/** They measure rates and delays, so each has the machine to itself. All others run two at a time. */
const TIMED = /(card|clips|deaths|devices|door|extension|faults|main-job|on-air|outputs|packages|screens|studio)\.spec\.ts$/

export default defineConfig({
  testDir: 'tests/e2e',
  projects: [
    { name: 'calm', testIgnore: TIMED },
    // Two cores: the studio, its camera, an encoder and a meeting already fill them.
    { name: 'timed', testMatch: TIMED },
  ],
  workers: 1,
  fullyParallel: false,
  // For a machine that others use too: what takes seconds alone may take a minute beside them.
  timeout: 180_000,
  expect: { timeout: 20_000 },
  forbidOnly: true,
  reporter: [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: { executablePath: CHROMIUM, args: [...CHROMIUM_FLAGS] },
    trace: 'off',
  },
})
