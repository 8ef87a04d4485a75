// Slides in browser tests: decks whose pages are told apart by their papers, imported as a presenter does.
import type { Locator, Page } from '@playwright/test'
import { isDeck, type DeckInput } from '../../core/inputs/deck.ts'
import { pdfOf, type ToldPage } from '../support/decks.ts'
import type { TestServer } from '../support/test-server.ts'
import { colourAt, expect, joinMeeting } from './studio.ts'

export const SHOW_ID = 'demo-brood-frame'
/** Papers that a codec leaves apart. */
export const PAPERS = ['#c9dff2', '#f0d9b0', '#cfe8c9', '#e8c9d9', '#8a97a6', '#5f6f4f'] as const
export const paperDeck = (count: number, notes = false): ToldPage[] =>
  Array.from({ length: count }, (_, index) => ({
    title: `Slide ${index + 1}`,
    paper: PAPERS[index % PAPERS.length]!,
    ...(notes ? { notes: `Note ${index + 1}` } : {}),
  }))

export const dialogOf = (page: Page) => page.getByTestId('deck-import')

/** Chooses a file by "Add", as a presenter does. */
export async function choose(page: Page, name: string, buffer: Buffer, mimeType = 'application/pdf'): Promise<Locator> {
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  const choosing = page.waitForEvent('filechooser')
  await page.getByRole('option', { name: /^Slides/ }).click()
  await (await choosing).setFiles({ name, mimeType, buffer })
  return dialogOf(page)
}

export const decksIn = async (server: TestServer): Promise<DeckInput[]> => (await server.shows.get(SHOW_ID)).show.inputs.filter(isDeck)

/** Which paper is seen of what others see, at the upper right where nothing else is said; null for none. */
export async function paperAt(meeting: Page, x = 1240, y = 40): Promise<number | null> {
  const [red, green, blue] = await colourAt(meeting, x, y)
  const found = PAPERS.findIndex((paper) =>
    [red, green, blue].every((code, channel) => Math.abs(code - parseInt(paper.slice(1 + channel * 2, 3 + channel * 2), 16)) < 12),
  )
  return found < 0 ? null : found + 1
}

export async function putOnAir(page: Page, server: TestServer): Promise<Page> {
  await page.getByRole('button', { name: 'Start feed' }).click()
  return joinMeeting(page.context(), server)
}

/** Imports a PDF of so many pages as one scene in a style, puts that first, and starts the feed. Says who sees it. */
export async function slidesOnAir(page: Page, server: TestServer, count: number, style: string): Promise<Page> {
  const dialog = await choose(page, 'papers.pdf', await pdfOf(paperDeck(count)))
  await expect(dialog.getByText(`${count} pages are ready`)).toBeVisible({ timeout: 60_000 })
  await dialog.getByRole('button', { name: style, exact: true }).click()
  await dialog.getByRole('button', { name: 'Add 1 scene' }).click()
  await expect(dialog).toBeHidden()
  await page.getByRole('button', { name: 'Start with this scene' }).click()
  const meeting = await putOnAir(page, server)
  await page.bringToFront()
  return meeting
}
