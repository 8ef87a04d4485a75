// The extension, by what a meeting page without a line of ours sees.
import { colourAt, expect, openStudio, test } from './studio.ts'
import { joinPlainMeeting, withExtension } from './with-extension.ts'

test('a page with a strict policy and no code of ours lists, opens and receives', async ({ server }) => {
  await withExtension(server, async (context) => {
    const studio = await context.newPage()
    studio.on('console', (m) => console.log('studio', m.text()))
    await openStudio(studio, server)
    await studio.getByRole('button', { name: 'Start feed' }).click()
    const meeting = await joinPlainMeeting(context, server)
    meeting.on('console', (m) => console.log('meeting', m.text()))
    await studio.bringToFront()
    await expect(studio.getByTestId('site-ask')).toBeVisible()
    await studio.screenshot({ path: '/tmp/ask.png' })
    await studio.getByRole('button', { name: 'This time' }).click()
    await meeting.bringToFront()
    await new Promise(r=>setTimeout(r,6000)); await meeting.screenshot({path:'/tmp/plain.png'})
    await expect.poll(() => meeting.evaluate(() => window.meetingFigures!.read()?.fps ?? 0)).toBeGreaterThan(20)
    console.log(await colourAt(meeting, 100, 100), await meeting.evaluate(() => window.meetingFigures!.read()))
  })
})
