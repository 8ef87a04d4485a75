// What drawing words costs the feed: a clock in soft shadow on air, and a note in soft shadow that is typed.
import { watchSteal } from './cpu-steal.ts'
import { startFeedRig, type FeedRig } from './feed-rig.ts'

const SECONDS = 30
const TYPED_EVERY_MS = 150

interface WordsFigures {
  readonly fps: number
  /** Ticks that were missed, or pictures that came too late. */
  readonly late: number
  readonly repeated: number
  readonly frameMs: number
  readonly cpuStolen: number | null
}

export interface RasterFigures {
  /** The same words, and no clock among them: what is late here is late without it. */
  readonly control: WordsFigures
  readonly clock: WordsFigures
  readonly typing: WordsFigures
  /** The longest that words held up one tick, in both. */
  readonly longestRasterMs: number
}

/** The same scene three times: at rest, with its clock alone, then while its note is typed several times a second. */
export async function benchRasters(say: (text: string) => void): Promise<RasterFigures> {
  say(`rasters: ${SECONDS} s, words in soft shadow at rest`)
  const resting = await startFeedRig('wordsAtRest')
  let control: WordsFigures
  try {
    control = await measure(resting)
  } finally {
    await resting.close()
  }
  const rig = await startFeedRig('words')
  try {
    await rig.studio.evaluate(`document.querySelector('[data-layer="Note"] button').click()`)
    await rig.studio.until(`[...document.querySelectorAll('textarea')].some(({ value }) => value === 'Bees')`)
    say(`rasters: ${SECONDS} s, a clock in soft shadow`)
    const clock = await measure(rig)
    say(`rasters: ${SECONDS} s, and a note that is typed`)
    let count = 0
    const typing = await measure(rig, () => rig.studio.evaluate<void>(typed('Bees ' + 'hum in the meadow '.slice(0, (count += 1) % 18))))
    return { control, clock, typing, longestRasterMs: (await rig.stats()).longestRasterMs }
  } finally {
    await rig.close()
  }
}

/** Types into the note. A hidden page's own timers are throttled, so each word comes from outside. */
const typed = (words: string) => `{
  const field = [...document.querySelectorAll('textarea')].find(({ value }) => value.startsWith('Bees'))
  field.value = ${JSON.stringify(words)}
  field.dispatchEvent(new Event('input', { bubbles: true }))
}`

async function measure(rig: FeedRig, each: () => Promise<void> = () => Promise.resolve()): Promise<WordsFigures> {
  const stolen = watchSteal()
  const before = await rig.stats()
  await rig.resetFigures()
  for (const untilMs = performance.now() + SECONDS * 1000; performance.now() < untilMs;) {
    await rig.meeting.evaluate(`new Promise((resolve) => setTimeout(resolve, ${TYPED_EVERY_MS}))`)
    await each()
  }
  const { frames, seconds, repeated } = await rig.figures()
  const after = await rig.stats()
  return { fps: frames / seconds, late: after.feed.lost - before.feed.lost, repeated, frameMs: after.frameMs, cpuStolen: stolen() }
}
