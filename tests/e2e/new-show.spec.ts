// A list box hangs below the body: choosing in it is no press outside the dialog.
import { expect, test } from './studio.ts'
test('the camera of a new show is chosen in its dialog, which stays open for it', async ({ page, server }) => {
  await page.goto(`${server.studioUrl}/shows`)
  await page.getByRole('button', { name: 'New show' }).click()
  await page.getByRole('button', { name: /^Camera/ }).click()
  await page.getByRole('option', { name: 'Stand-in: Blue cloth' }).click()
  await expect(page.getByTestId('new-show')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Camera: Stand-in: Blue cloth' })).toBeVisible()
})
