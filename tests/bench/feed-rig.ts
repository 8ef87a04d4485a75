// The real chain in a bare browser: studio in a hidden tab, meeting in front of it.
import { newInputLayer } from '../../core/layers/input.ts'
import { newTextLayer } from '../../core/layers/text.ts'
import { execFileSync } from 'node:child_process'
import { rmSync } from 'node:fs'
import { seedDemo } from '../../demo/seed.ts'
import { makeGraphic } from '../../core/graphics/make-graphic.ts'
import { addContents } from '../../core/show/contents.ts'
import { addScene, switchStep } from '../../core/show/edits.ts'
import { removeLayers } from '../../core/show/layer-set-edits.ts'
import type { CameraDevice, Input, Show, Step } from '../../core/show/show.ts'
import { stepOf, type StepKind } from '../../core/steps/index.ts'
import { defaultParams, type ParamSpecs, type ParamValue } from '../../core/steps/step.ts'
import type { EngineStats } from '../../engine/protocol.ts'
import { BareBrowser, type BarePage } from '../support/cdp.ts'
import { graphicWordsForTests } from '../support/graphic-words.ts'
import { extensionFor, flagsFor } from '../support/extension.ts'
import { callJson, startTestServer, type TestServer } from '../support/test-server.ts'
import { writeStandinY4m } from '../support/y4m.ts'
import type { Figures } from '../../standins/meeting/frame-figures.ts'

const WARM_UP_MS = 4000
const CAMERA_SECONDS = 4

export interface FeedRig {
  readonly browserPid: number
  readonly studio: BarePage
  readonly meeting: BarePage
  readonly figures: () => Promise<Figures>
  readonly resetFigures: () => Promise<void>
  readonly stats: () => Promise<EngineStats>
  /** Used bytes of the studio's JavaScript heap, garbage collected first. */
  readonly heapBytes: () => Promise<number>
  close(): Promise<void>
}

/**
 * What the demo's camera does in a measurement: the show's own key on the drawn camera or on a file, a found key, the room softened in an untidy
 * room, or the show's own key before a clip of full HD and a screen, beside a clock and a note in soft shadow, beside the same words at rest, or a file under six graphics that are not
 * shown yet.
 */
export type FeedChain = 'usual' | 'fileCamera' | 'foundKey' | 'softenedRoom' | 'clipAndScreen' | 'words' | 'wordsAtRest' | 'graphics'

/** Starts server, studio, feed and meeting; the studio ends up hidden. */
export async function startFeedRig(chain: FeedChain = 'usual', way: 'driver' | 'extension' = 'driver'): Promise<FeedRig> {
  const server = await startTestServer()
  // The browser plays a file as a device, which costs as little as a camera does; a room is found only in what a device sends.
  const setting = chain === 'softenedRoom' ? 'untidyRoom' : chain === 'fileCamera' || chain === 'graphics' ? 'cloth' : null
  const file = setting === null ? null : await writeStandinY4m(CAMERA_SECONDS, setting)
  const flags = ['--use-fake-ui-for-media-stream', '--use-fake-device-for-media-stream=fps=30', `--use-file-for-fake-video-capture=${file}`]
  const extension = way === 'extension' ? extensionFor(server) : null
  const browser = await BareBrowser.launch([...(file === null ? [] : flags), ...(extension === null ? [] : flagsFor(extension))])
  try {
    return await wire(server, browser, chain, file, extension)
  } catch (error) {
    await browser.close()
    await server.close()
    throw error
  }
}

/** A meeting with a camera of the browser's own, and no studio: what any page would get. The camera plays the stand-in from a file. */
export async function startBareMeeting(): Promise<Pick<FeedRig, 'meeting' | 'close'>> {
  const server = await startTestServer()
  const file = await writeStandinY4m(CAMERA_SECONDS, 'cloth')
  const browser = await BareBrowser.launch([
    '--use-fake-ui-for-media-stream',
    '--use-fake-device-for-media-stream=fps=30',
    `--use-file-for-fake-video-capture=${file}`,
  ])
  const close = async () => {
    await browser.close()
    await server.close()
  }
  try {
    const meeting = await browser.newPage(server.meetingUrl)
    await meeting.until(`document.querySelector('#camera option') !== null && !document.querySelector('#join').disabled`)
    await meeting.evaluate(`{
      const select = document.querySelector('#camera')
      select.value = [...select.options].find((option) => option.textContent !== 'Green Room Camera').value
      document.querySelector('#microphone').value = 'none'
      document.querySelector('#join').click()
    }`)
    await meeting.until(`document.querySelector('#others').videoWidth > 0`)
    await meeting.evaluate(`new Promise((resolve) => setTimeout(resolve, ${WARM_UP_MS}))`)
    return { meeting, close }
  } catch (error) {
    await close()
    throw error
  }
}

async function wire(server: TestServer, browser: BareBrowser, chain: FeedChain, cameraFile: string | null, extension: string | null): Promise<FeedRig> {
  await seedDemo(server.shows, server.assets)
  await showFrameMark(server, chain, cameraFile)
  if (extension !== null) await callJson(`${server.studioUrl}/api/sites`, 'PUT', { origin: server.meetingUrl, decision: 'always' })
  const studio = await browser.newPage(server.studioUrl)
  await studio.until('window.greenRoom?.hasPicture()')
  // A loop that starts hidden runs slower for a while, so it starts in view.
  await studio.evaluate(`new Promise((resolve) => setTimeout(resolve, ${WARM_UP_MS}))`)
  await studio.evaluate(`[...document.querySelectorAll('button')].find((button) => button.textContent.includes('Start feed')).click()`)
  const meeting = await browser.newPage(extension === null ? server.meetingUrl : `${server.meetingUrl}/plain`)
  // Where no other camera is, any camera is ours; by the extension its name is known only after it was opened.
  await meeting.until(`document.querySelector('#camera option') !== null && !document.querySelector('#join').disabled`)
  await meeting.evaluate(`{
    const select = document.querySelector('#camera')
    select.value = [...select.options].find((option) => option.textContent === 'Green Room Camera')?.value ?? select.value
    // The picture alone, as it always was measured; by the extension the voice comes with it.
    if (${extension === null}) document.querySelector('#microphone').value = 'none'
    document.querySelector('#join').click()
  }`)
  // A softened room hides the frame numbers.
  await meeting.until(chain === 'softenedRoom' ? `document.querySelector('#others').videoWidth > 0` : 'window.meetingFigures.read()?.hasMarks')
  if ((await studio.evaluate<string>('document.visibilityState')) !== 'hidden') throw new Error('the studio tab is not hidden')
  await meeting.evaluate(`new Promise((resolve) => setTimeout(resolve, ${WARM_UP_MS}))`)
  return {
    browserPid: browser.pid,
    studio,
    meeting,
    figures: () => meeting.evaluate<Figures>('window.meetingFigures.read()'),
    resetFigures: () => meeting.evaluate<void>('window.meetingFigures.reset()'),
    stats: () => studio.evaluate<EngineStats>('window.greenRoom.stats()'),
    heapBytes: async () => {
      await studio.send('HeapProfiler.collectGarbage')
      return ((await studio.send('Runtime.getHeapUsage')) as { usedSize: number }).usedSize
    },
    close: async () => {
      await browser.close()
      await server.close()
      if (extension !== null) rmSync(extension, { recursive: true, force: true })
    },
  }
}

/** Takes the crop and what lies over the mark away, so that the meeting can read frame numbers. */
async function showFrameMark(server: TestServer, chain: FeedChain, cameraFile: string | null): Promise<void> {
  const { show, revision, id } = await server.shows.get('demo-brood-frame')
  const camera = show.inputs[0]!
  const welcome = show.scenes[0]!
  const uncropped = switchStep(show, { type: 'input', inputId: camera.id }, camera.treatment[0]!.id, false)
  const title = welcome.layers.find((layer) => layer.name === 'Class title')!
  const shown = removeLayers(uncropped, welcome.id, [title.id])
  if (chain === 'clipAndScreen') {
    await server.shows.save(id, revision, await withClipAndScreen(server, shown))
    return
  }
  if (chain === 'words' || chain === 'wordsAtRest') {
    await server.shows.save(id, revision, withShadedWords(shown, chain === 'words' ? 'We begin in {countdown}' : 'We begin in 4:59:59'))
    return
  }
  if (chain === 'graphics') {
    await server.shows.save(id, revision, withSixGraphics(withDevice(shown, { type: 'device', deviceId: '', label: cameraFile! })))
    return
  }
  if (chain === 'fileCamera') {
    await server.shows.save(id, revision, withDevice(shown, { type: 'device', deviceId: '', label: cameraFile! }))
    return
  }
  await server.shows.save(id, revision, cameraFile !== null ? withSoftenedRoom(shown, cameraFile) : chain === 'foundKey' ? withFoundKey(shown) : shown)
}

/** Surface, solved edge and spill in place of the plain key: as much work as "find it for me" may ask for. */
function withFoundKey(show: Show): Show {
  const surface = [0.177, -0.019, -0.012, -0.021, 0.004, -0.01, 0.648, -0.07, -0.044, -0.068, 0.014, -0.037, 0.289, -0.031, -0.02, -0.031, 0.006, -0.017]
  const bounds = [0.129, 0.498, 0.22, 0.208, 0.718, 0.325]
  return withSteps(show, { type: 'standin', standin: 'cloth' }, [
    step('chromaKey', { colour: '#2da74a', tolerance: 0.15, softness: 0.63, spill: 0, backdrop: 'fitted', surface: [...surface, ...bounds] }),
    step('matteEdge', { black: 0.06, white: 0.94, detail: 1 }),
    step('spill', { colour: '#2da74a', reach: 0.96, keepLuma: 'off' }),
  ])
}

/** A moving wall of 1920 × 1080 at thirty a second, and the stand-in screen between it and the presenter. */
async function withClipAndScreen(server: TestServer, show: Show): Promise<Show> {
  const source = ['-f', 'lavfi', '-i', 'testsrc2=size=1920x1080:rate=30:duration=4']
  const coded = ['-c:v', 'libx264', '-preset', 'veryfast', '-b:v', '6M', '-pix_fmt', 'yuv420p', '-movflags', 'frag_keyframe+empty_moov', '-f', 'mp4', '-']
  const bytes = execFileSync('ffmpeg', ['-v', 'error', ...source, ...coded], { maxBuffer: 1 << 28 })
  const { hash } = await server.assets.add(bytes, 'wall.mp4')
  const clip: Input = {
    id: 'bench-clip',
    kind: 'clip',
    name: 'Moving wall',
    asset: hash,
    fromMs: 0,
    toMs: null,
    rate: 1,
    loops: true,
    moving: null,
    treatment: [],
  }
  const screen: Input = { id: 'bench-screen', kind: 'screen', name: 'Screen', source: { type: 'standin' }, frameRate: 30, treatment: [] }
  const welcome = show.scenes[0]!
  let count = 0
  const makeId = () => `bench-layer-${(count += 1)}`
  const wall = newInputLayer(clip, show.canvas, makeId)
  const page = newInputLayer(screen, show.canvas, makeId)
  const beside = { ...page, placement: { x: 700, y: 60, width: 520, height: 330, angleDeg: 0, fit: 'fit' as const } }
  const layers = [wall, beside, ...welcome.layers.slice(1)]
  return { ...show, inputs: [...show.inputs, clip, screen], scenes: [{ ...welcome, layers }, ...show.scenes.slice(1)] }
}

/** Words that cost as much to draw as any: large, with a shadow that is 60 pixels soft. One tells the time to the second, one is for editing. */
function withShadedWords(show: Show, clock: string): Show {
  let count = 0
  const makeId = () => `bench-words-${(count += 1)}`
  const soon = new Date(Date.now() + 5 * 3_600_000)
  const countdownTo = `${String(soon.getHours()).padStart(2, '0')}:${String(soon.getMinutes()).padStart(2, '0')}`
  const shadow = { dx: 6, dy: 8, blurPx: 60, colour: '#000000', opacity: 0.7 }
  const words = [
    { name: 'Clock', text: clock, y: 40 },
    { name: 'Note', text: 'Bees', y: 260 },
  ].map(({ name, text, y }) => {
    const { layer, contents } = newTextLayer(name, text, show.canvas, makeId)
    return {
      layer: { ...layer, placement: { ...layer.placement, x: 640, y, width: 600, height: 200 } },
      contents: contents.map((content) => (content.kind === 'text' ? { ...content, text: { ...content.text, shadow } } : content)),
    }
  })
  const [welcome, ...others] = show.scenes
  const layers = [...welcome!.layers, ...words.map(({ layer }) => layer)]
  return {
    ...show,
    presenter: { ...show.presenter, countdownTo },
    contents: [...show.contents, ...words.flatMap(({ contents }) => contents)],
    scenes: [{ ...welcome!, layers }, ...others],
  }
}

/** Graphics of every family, away from the frame mark; a clock and countdowns among them, which change by the second. */
function withSixGraphics(show: Show): Show {
  let count = 0
  const makeId = () => `bench-graphic-${(count += 1)}`
  const presets = [
    { kind: 'banner', family: 'ruled' },
    { kind: 'agenda', family: 'card' },
    { kind: 'countdown', family: 'block' },
    { kind: 'countdown', family: 'card' },
    { kind: 'clock', family: 'ruled' },
    { kind: 'clock', family: 'open' },
  ] as const
  return presets.reduce<Show>((current, preset, i) => {
    const { graphic, contents } = makeGraphic(preset, graphicWordsForTests, show.canvas, makeId)
    return addContents(addScene(current, { ...graphic, name: `Graphic ${i + 1}` }), contents)
  }, show)
}

/** The browser calls a device that plays a file by the file's name. */
function withSoftenedRoom(show: Show, cameraFile: string): Show {
  return withSteps(show, { type: 'device', deviceId: '', label: cameraFile }, [step('room', { effect: 'softened', softness: 3 })])
}

function withSteps(show: Show, device: CameraDevice, steps: readonly Step[]): Show {
  const [camera, ...others] = withDevice(show, device).inputs
  return { ...show, inputs: [{ ...camera!, treatment: [...camera!.treatment.filter(({ kind }) => kind === 'tone'), ...steps] } as Input, ...others] }
}

function withDevice(show: Show, device: CameraDevice): Show {
  const camera = show.inputs[0]!
  if (camera.kind !== 'camera') throw new Error('the first input of the demo is a camera')
  return { ...show, inputs: [{ ...camera, device }, ...show.inputs.slice(1)] }
}

function step(kind: StepKind, params: Readonly<Record<string, ParamValue>>): Step {
  return { id: kind, kind, on: true, params: { ...defaultParams(stepOf(kind).params as ParamSpecs), ...params } } as unknown as Step
}
