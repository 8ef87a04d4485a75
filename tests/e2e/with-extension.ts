// A browser with the extension loaded, its studio, and meeting pages with no line of ours in them.
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { chromium, type BrowserContext, type Page } from '@playwright/test'
import { CHROMIUM, CHROMIUM_FLAGS } from '../support/chromium.ts'
import { extensionFor, flagsFor } from '../support/extension.ts'
import type { TestServer } from '../support/test-server.ts'
import { expect } from './studio.ts'

/** Runs a browser that may have extensions, with a profile of its own. */
export async function withBrowser(flags: readonly string[], run: (context: BrowserContext) => Promise<void>): Promise<void> {
  const profile = mkdtempSync(path.join(tmpdir(), 'green-room-profile-'))
  const context = await chromium.launchPersistentContext(profile, {
    executablePath: CHROMIUM,
    channel: undefined,
    viewport: { width: 1280, height: 800 },
    ignoreDefaultArgs: ['--disable-extensions'],
    args: [...CHROMIUM_FLAGS, ...flags],
  })
  try {
    await run(context)
  } finally {
    await context.close()
    rmSync(profile, { recursive: true, force: true, maxRetries: 5 })
  }
}

/** Runs a browser with the extension loaded. */
export async function withExtension(server: TestServer, run: (context: BrowserContext) => Promise<void>, flags: readonly string[] = []): Promise<void> {
  const extension = extensionFor(server)
  try {
    await withBrowser([...flagsFor(extension), ...flags], run)
  } finally {
    rmSync(extension, { recursive: true, force: true, maxRetries: 5 })
  }
}

/** Joins the meeting without a line of ours, and waits until it holds both devices. */
export async function joinPlainMeeting(context: BrowserContext, server: TestServer): Promise<Page> {
  const meeting = await context.newPage()
  await meeting.goto(`${server.meetingUrl}/plain`)
  await meeting.getByRole('button', { name: 'Join' }).click()
  await expect(meeting.locator('#status')).toHaveText('In the meeting with Green Room Camera and Green Room Microphone')
  return meeting
}
