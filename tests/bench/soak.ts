// A long time on air with a presenter at work: what grows that should not.
import { readdirSync, readFileSync } from 'node:fs'
import { watchSteal } from './cpu-steal.ts'
import { startFeedRig, type FeedRig } from './feed-rig.ts'
import { processesOf } from './process-tree.ts'

/** The first minutes fill caches: growth is read from then on. */
const WARM_UP_MINUTES = 2

interface SoakState {
  /** Used JavaScript heap of the page, garbage collected first. */
  readonly heapBytes: number
  readonly domNodes: number
  readonly eventListeners: number
  /** VideoFrames that are neither closed nor handed over. */
  readonly liveFrames: number
  /** Resident memory and open files of all the browser's processes. */
  readonly residentBytes: number
  readonly openFiles: number
}

export interface SoakFigures {
  readonly minutes: number
  /** After the warm-up, half way, and at the end. */
  readonly start: SoakState
  readonly middle: SoakState
  readonly end: SoakState
  /** Ticks that were missed, or pictures that came too late. Frame numbers tell nothing here: some scenes have no camera. */
  readonly late: number
  readonly cpuStolen: number | null
}

/** Stays on air for `minutes`, while scenes are taken, a layer is moved and moved back, the card is shown, and pages are opened. */
export async function benchSoak(say: (text: string) => void, minutes = 10): Promise<SoakFigures> {
  const rig = await startFeedRig()
  try {
    await work(rig, WARM_UP_MINUTES)
    const start = await stateOf(rig)
    const stolen = watchSteal()
    const before = await rig.stats()
    let middle = start
    for (let minute = 1; minute <= minutes; minute += 1) {
      await work(rig, 1)
      if (minute === Math.ceil(minutes / 2)) middle = await stateOf(rig)
      say(`soak: ${minute} of ${minutes} minutes`)
    }
    const late = (await rig.stats()).feed.lost - before.feed.lost
    return { minutes, start, middle, end: await stateOf(rig), late, cpuStolen: stolen() }
  } finally {
    await rig.close()
  }
}

/** What a presenter does, once every five seconds. */
const STEPS_A_MINUTE = 12

async function work(rig: FeedRig, minutes: number): Promise<void> {
  for (let step = 0; step < minutes * STEPS_A_MINUTE; step += 1) {
    await rig.studio.evaluate(`(${workStep})(${step})`)
    // Of the page in front: a hidden page's timers are throttled.
    await rig.meeting.evaluate(`new Promise((resolve) => setTimeout(resolve, ${60_000 / STEPS_A_MINUTE}))`)
  }
}

/** Runs in the studio's page. Throws when what it presses is not there. */
const workStep = `(step) => {
  const press = (key, code, init = {}, target = window) =>
    target.dispatchEvent(new KeyboardEvent('keydown', { key, code, bubbles: true, cancelable: true, ...init }))
  const digit = (number) => press(String(number), 'Digit' + number)
  const find = (selector) => {
    const found = document.querySelector(selector)
    if (found === null) throw new Error('nothing on the page is ' + selector)
    return found
  }
  const goTo = (place) => find('a[href*="/' + place + '"]').click()
  const actions = [
    () => digit(2),
    () => find('[data-layer] button').click(),
    () => press('ArrowRight', 'ArrowRight', { shiftKey: true }, find('.stage-handles')),
    () => press('z', 'KeyZ', { ctrlKey: true }),
    () => digit(0),
    () => digit(0),
    () => digit(3),
    () => goTo('bench'),
    () => digit(1),
    () => goTo('devices'),
    () => goTo('build'),
    () => digit(1),
  ]
  actions[step % actions.length]()
}`

async function stateOf(rig: FeedRig): Promise<SoakState> {
  const heapBytes = await rig.heapBytes()
  await rig.studio.send('Performance.enable')
  const { metrics } = (await rig.studio.send('Performance.getMetrics')) as { metrics: { name: string; value: number }[] }
  const metric = (name: string) => metrics.find((each) => each.name === name)!.value
  const processes = processesOf(rig.browserPid)
  return {
    heapBytes,
    domNodes: metric('Nodes'),
    eventListeners: metric('JSEventListeners'),
    liveFrames: (await rig.stats()).liveFrames,
    residentBytes: sum(processes.map(residentBytes)),
    openFiles: sum(processes.map((pid) => readOr(() => readdirSync(`/proc/${pid}/fd`).length))),
  }
}

function residentBytes(pid: number): number {
  return readOr(() => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) * 1024)
}

/** A figure of a process; 0 when it ended meanwhile. */
function readOr(read: () => number): number {
  try {
    return read()
  } catch {
    return 0
  }
}

function sum(values: readonly number[]): number {
  return values.reduce((total, value) => total + value, 0)
}
