// A browser with the extension loaded, its studio, and meeting pages with no line of ours in them.
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { chromium, type BrowserContext, type Page } from '@playwright/test'
import { CHROMIUM, CHROMIUM_FLAGS } from '../support/chromium.ts'
import { extensionFor, flagsFor } from '../support/extension.ts'
import type { TestServer } from '../support/test-server.ts'
import { expect } from './studio.ts'

/** Runs a browser with the extension loaded. */
export async function withExtension(server: TestServer, run: (context: BrowserContext) => Promise<void>, flags: readonly string[] = []): Promise<void> {
  const extension = extensionFor(server)
  const profile = mkdtempSync(path.join(tmpdir(), 'green-room-profile-'))
  const context = await chromium.launchPersistentContext(profile, {
    executablePath: CHROMIUM,
    channel: undefined,
    viewport: { width: 1280, height: 800 },
    ignoreDefaultArgs: ['--disable-extensions'],
    args: [...CHROMIUM_FLAGS, ...flagsFor(extension), ...flags],
  })
  try {
    await run(context)
  } finally {
    await context.close()
    for (const folder of [extension, profile]) rmSync(folder, { recursive: true, force: true, maxRetries: 5 })
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
