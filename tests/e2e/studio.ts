// What the browser tests share: a server with the demo, and a meeting that reads pixels.
import { test as base, expect, type BrowserContext, type Page } from '@playwright/test'
import '../../standins/meeting/figures-window.ts'
import { seedDemo } from '../../demo/seed.ts'
import { startTestServer, type TestServer } from '../support/test-server.ts'

export { expect }

export const test = base.extend<{ server: TestServer }>({
  server: async ({}, use) => {
    const server = await startTestServer()
    await seedDemo(server.shows, server.assets)
    await use(server)
    await server.close()
  },
})

/** Opens the studio and waits for its first picture. */
export async function openStudio(page: Page, server: TestServer): Promise<void> {
  await page.goto(server.studioUrl)
  await expect(page.getByTestId('stage')).toBeVisible()
  await expect(page.getByText('Starting the camera')).toHaveCount(0)
}

/** Joins the meeting in a page of its own with the virtual camera. */
export async function joinMeeting(context: BrowserContext, server: TestServer): Promise<Page> {
  const meeting = await context.newPage()
  await meeting.goto(server.meetingUrl)
  await expect(meeting.locator('#camera option', { hasText: 'Green Room Camera' })).toHaveCount(1)
  await meeting.locator('#camera').selectOption({ label: 'Green Room Camera' })
  await meeting.getByRole('button', { name: 'Join' }).click()
  await expect(meeting.locator('#status')).toHaveText('In the meeting with Green Room Camera')
  return meeting
}

/** The colour at (x, y) of what others see, in pixels of a 1280 × 720 picture: mean of a small square. */
export function colourAt(meeting: Page, x: number, y: number): Promise<[red: number, green: number, blue: number]> {
  return meeting.evaluate(
    ([atX, atY]) => {
      const video = document.querySelector<HTMLVideoElement>('#others')!
      const canvas = new OffscreenCanvas(1280, 720)
      const pen = canvas.getContext('2d')!
      pen.drawImage(video, 0, 0, 1280, 720)
      const { data } = pen.getImageData(atX - 4, atY - 4, 8, 8)
      const sum: [number, number, number] = [0, 0, 0]
      for (let at = 0; at < data.length; at += 4) for (let channel = 0; channel < 3; channel += 1) sum[channel]! += data[at + channel]! / 64
      return sum
    },
    [x, y] as const,
  )
}

/** Whether a colour is the cloth's: clearly more green than anything else. */
export function isCloth([red, green, blue]: readonly [number, number, number]): boolean {
  return green - Math.max(red, blue) > 45
}
