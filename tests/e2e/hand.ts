// A hand that counts what it does: clicks, words typed, files chosen; or single presses of keys.
import { expect, type Locator, type Page } from '@playwright/test'

const MOST_TABS = 45

export class Hand {
  actions = 0
  presses = 0

  async click(target: Locator): Promise<void> {
    this.actions += 1
    await target.click()
  }

  /** Types over what is there. */
  async write(target: Locator, words: string): Promise<void> {
    this.actions += 1
    await target.fill(words)
  }

  /** Choosing the file is an action of its own. */
  async chooseFile(page: Page, opens: () => Promise<void>, file: { name: string; mimeType: string; buffer: Buffer }): Promise<void> {
    const asked = page.waitForEvent('filechooser')
    await opens()
    this.actions += 1
    this.presses += 1
    await (await asked).setFiles(file)
  }

  /** Drops files on the stage, from a folder of the machine: one action. */
  async drop(page: Page, files: readonly { name: string; mimeType: string; buffer: Buffer }[]): Promise<void> {
    this.actions += 1
    const transfer = await page.evaluateHandle(
      (list) => {
        const data = new DataTransfer()
        for (const { name, mimeType, base64 } of list)
          data.items.add(new File([Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0))], name, { type: mimeType }))
        return data
      },
      files.map(({ name, mimeType, buffer }) => ({ name, mimeType, base64: buffer.toString('base64') })),
    )
    await page.getByRole('region', { name: 'Stage', exact: true }).dispatchEvent('drop', { dataTransfer: transfer })
  }

  /** Prints how many actions, or presses of keys, something took, and holds them to a limit. */
  tell(what: string, limit: number, unit: 'actions' | 'presses' = 'actions'): void {
    // eslint-disable-next-line no-console -- the figure is the point
    console.log(`${what}: ${this[unit]} ${unit} of ${limit}`)
    expect(this[unit], what).toBeLessThanOrEqual(limit)
  }

  async select(target: Locator, label: string): Promise<void> {
    this.actions += 1
    await target.selectOption({ label })
  }

  async press(page: Page, ...keys: string[]): Promise<void> {
    for (const key of keys) {
      this.presses += 1
      await page.keyboard.press(key)
    }
  }

  /** Every letter is a press. */
  async type(page: Page, words: string): Promise<void> {
    this.presses += [...words].length
    await page.keyboard.type(words)
  }

  /** Presses Tab, or Shift and Tab, until `target` has the focus. */
  async tabTo(page: Page, target: Locator, key: 'Tab' | 'Shift+Tab' = 'Tab'): Promise<void> {
    await expect(target).toBeVisible()
    for (let i = 0; i < MOST_TABS; i += 1) {
      if (await target.evaluate((element) => element === document.activeElement)) return
      await this.press(page, key)
    }
    const where = await page.evaluate(() => document.activeElement?.outerHTML.slice(0, 200))
    throw new Error(`the Tab key never reached it; the focus is on ${where}`)
  }
}
