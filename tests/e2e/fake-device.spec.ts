// Our camera beside the browser's own fake device: whatever a page may ask of that one, it may ask of ours.
import { seededRandom } from '../../core/random/seeded.ts'
import { expect, FULL_RATE, openStudio, test } from './studio.ts'
import { withExtension } from './with-extension.ts'

test.use({ frameRate: FULL_RATE })

const SETS = 500
const SEED = 18
const OURS = { widthPx: 1280, heightPx: 720, frameRate: 30 }

type Range = { min?: number; max?: number; exact?: number; ideal?: number }

/** Random constraints, as rooms and adapters write them: mostly aims and bounds, some of them narrow. */
function randomConstraints(random: () => number): MediaTrackConstraints {
  const pick = <T>(values: readonly T[]) => values[Math.floor(random() * values.length)]!
  const range = (values: readonly number[]): Range | number => {
    const [first, second] = [pick(values), pick(values)].sort((a, b) => a - b)
    return pick<Range | number>([
      first!,
      { ideal: first! },
      { min: first! },
      { max: second! },
      { min: first!, max: second! },
      { min: first!, ideal: second! },
      { exact: first! },
    ])
  }
  const set = (): MediaTrackConstraintSet => ({
    ...(random() < 0.5 ? { width: range([1, 160, 319, 320, 640, 641, 800, 960, 1280]) } : {}),
    ...(random() < 0.5 ? { height: range([1, 90, 180, 240, 359, 360, 480, 600, 720]) } : {}),
    ...(random() < 0.3 ? { aspectRatio: range([0.5625, 1, 1.25, 4 / 3, 1.5, 16 / 9, 2]) } : {}),
    ...(random() < 0.3 ? { frameRate: range([5, 10, 15, 20, 24, 30]) } : {}),
    ...(random() < 0.2 ? { resizeMode: pick<unknown>(['none', 'crop-and-scale', { exact: 'crop-and-scale' }, { exact: 'none' }]) as ConstrainDOMString } : {}),
  })
  return { ...set(), ...(random() < 0.3 ? { advanced: [set(), set()] } : {}) }
}

/** Whether any size that the camera can give meets the required bounds, by looking at every width in turn. */
function isWithinOurs({ width, height, aspectRatio, resizeMode }: MediaTrackConstraints & { readonly resizeMode?: unknown }): boolean {
  const bounds = (wish: unknown) => {
    const { min = -Infinity, max = Infinity, exact } = (typeof wish === 'object' && wish !== null ? wish : {}) as Range
    return exact === undefined ? { min, max } : { min: exact, max: exact }
  }
  const [wide, high, shape] = [bounds(width), bounds(height), bounds(aspectRatio)]
  const isFixed = (resizeMode as { exact?: string } | undefined)?.exact === 'none'
  for (let x = isFixed ? OURS.widthPx : 1; x <= OURS.widthPx; x += 1) {
    if (x < wide.min || x > wide.max) continue
    const lowest = Math.max(high.min, isFixed ? OURS.heightPx : 1, x / shape.max)
    const highest = Math.min(high.max, OURS.heightPx, shape.min > 0 ? x / shape.min : Infinity)
    if (lowest <= highest) return true
  }
  return false
}

test(`${SETS} random sets of constraints: what opens the browser’s fake device opens ours, within what was required (seed ${SEED})`, async ({ server }) => {
  const flags = ['--use-fake-ui-for-media-stream', '--use-fake-device-for-media-stream=fps=30']
  await withExtension(
    server,
    async (context) => {
      const studio = await context.newPage()
      await openStudio(studio, server)
      await studio.getByRole('button', { name: 'Start feed' }).click()
      const page = await context.newPage()
      await page.goto(`${server.meetingUrl}/plain`)
      const random = seededRandom(SEED)
      const sets = Array.from({ length: SETS }, () => randomConstraints(random))
      const answers = await page.evaluate(async (wishes) => {
        const first = await navigator.mediaDevices.getUserMedia({ video: true, audio: true })
        const devices = (await navigator.mediaDevices.enumerateDevices()).filter(({ kind }) => kind === 'videoinput')
        const ours = devices.find(({ label }) => label === 'Green Room Camera')!.deviceId
        const theirs = first.getVideoTracks()[0]!.getSettings().deviceId!
        const open = async (deviceId: string, wish: MediaTrackConstraints) => {
          try {
            const stream = await navigator.mediaDevices.getUserMedia({ video: { ...wish, deviceId: { exact: deviceId } } })
            const [track] = stream.getVideoTracks()
            const { width, height, frameRate } = track!.getSettings()
            track!.stop()
            return { width: width!, height: height!, frameRate: frameRate! }
          } catch (error) {
            return error instanceof Error ? `${error.name} ${(error as unknown as { constraint?: string }).constraint ?? ''}` : String(error)
          }
        }
        const result = []
        for (const wish of wishes) result.push([await open(theirs, wish), await open(ours, wish)] as const)
        return result
      }, sets)
      const opened = answers.filter(([theirs]) => typeof theirs !== 'string').length
      const wrong = sets.flatMap((set, i) => {
        const [theirs, ours] = answers[i]!
        if (typeof theirs === 'string' || !isWithinOurs(set)) return []
        return typeof ours === 'string' ? [`${JSON.stringify(set)}: ${ours}, theirs ${JSON.stringify(theirs)}`] : outside(set, ours)
      })
      expect(wrong, wrong.slice(0, 5).join('\n')).toEqual([])
      // Most of them can be opened, some not: both have been tried.
      expect(opened).toBeGreaterThan(SETS / 3)
      expect(opened).toBeLessThan(SETS)
    },
    flags,
  )
})

/** Which required bounds the settings of a track break. */
function outside(set: MediaTrackConstraints, given: Readonly<Record<'width' | 'height' | 'frameRate', number>>): string[] {
  return (['width', 'height', 'frameRate'] as const).flatMap((name) => {
    const { min, max, exact } = (typeof set[name] === 'object' ? set[name] : {}) as Range
    const isMet = given[name] >= (exact ?? min ?? 0) && given[name] <= (exact ?? max ?? Infinity)
    return isMet ? [] : [`${JSON.stringify(set)}: ${name} is ${given[name]}`]
  })
}
