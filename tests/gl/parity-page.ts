// Runs inside the browser: the executor for graphics cards against the exact reference. Built by gl.spec.ts.
import { planFrame, planInput } from '../../core/stage/plan-frame.ts'
import type { Shape } from '../../core/composite/shape.ts'
import type { FramePlan, Item, Paint } from '../../core/plan/frame-plan.ts'
import { rootOf } from '../../core/plan/read-plan.ts'
import type { I420Picture, Picture } from '../../core/picture/picture.ts'
import { renderReference } from '../../core/render/render-reference.ts'
import { treatReference } from '../../core/render/treat-reference.ts'
import { steps, type StepCall } from '../../core/steps/index.ts'
import { Heap } from '../../engine/cpu/heap.ts'
import { Treatments } from '../../engine/cpu/treatments.ts'
import { Executors, type ExecutorState } from '../../engine/executors.ts'
import { GlDevice } from '../../engine/gl/device.ts'
import { GlExecutor } from '../../engine/gl/gl-executor.ts'
import { GlTreatments } from '../../engine/gl/gl-treatments.ts'
import { CHAIN_LIMIT, CHAIN_SEEDS, chainCase, limits, roundMask, STEP_SEEDS, stepCases, usualCall } from '../support/parity-cases.ts'
import { differenceOf } from '../support/pictures.ts'
import { withItems } from '../support/plans.ts'
import { PLAN_LIMIT, PLAN_SEEDS, planCase } from '../support/random-plans.ts'
import { MOVING_SEEDS, movingCase, picturesFor, SHOW_SEEDS, showCase } from '../support/random-shows.ts'

export interface ParityResult {
  readonly name: string
  readonly what: string
  readonly max: number
  readonly shareAbove: number
}

/** Who made each picture, and how far it is from the reference. */
export interface LossResults {
  readonly before: ParityResult
  readonly atLoss: ParityResult
  readonly restored: ParityResult
  readonly states: readonly string[]
}

declare global {
  interface Window {
    parity: {
      readonly stepResults: (camera: I420Picture) => ParityResult[]
      readonly chainResults: () => ParityResult[]
      readonly drawResults: (camera: I420Picture) => ParityResult[]
      /** A whole planned scene: its first frame and, with a new camera picture, the next. */
      readonly sceneResult: (name: string, plan: FramePlan, pictures: readonly (readonly [string, Picture])[]) => ParityResult
      /** Whole random plans, and plans of whole random shows. */
      readonly planResults: () => ParityResult[]
      readonly leftOver: () => number
      readonly lossResults: (camera: I420Picture, kernels: Uint8Array<ArrayBuffer>) => Promise<LossResults>
      readonly choice: (kernels: Uint8Array<ArrayBuffer>) => Promise<ExecutorState>
    }
  }
}

const context = new OffscreenCanvas(1, 1).getContext('webgl2')
if (context === null) throw new Error('this browser has no WebGL2')
const device = new GlDevice(context)

/** How far a treated picture, drawn alone, is from the reference on the last of some frames. */
function treatedDifference(frames: readonly Picture[], calls: readonly StepCall[], limit: number) {
  const { widthPx, heightPx } = frames[0]!
  const treatments = new GlTreatments(device)
  const executor = new GlExecutor(treatments)
  treatments.setPerson('input:camera', roundMask())
  const plan = planInput('camera', { widthPx, heightPx, isOpaque: false }, calls, widthPx, heightPx)
  const memory = new Map()
  let live = new Uint8ClampedArray(0)
  let exact = treatReference(frames[0]!, calls, { memory, person: roundMask() }).data
  frames.forEach((picture, i) => {
    if (i > 0) exact = treatReference(picture, calls, { memory, person: roundMask() }).data
    live = Uint8ClampedArray.from(executor.render(plan, new Map([['input:camera', { picture, version: i + 1, isLive: true }]])).data)
  })
  executor.dispose()
  treatments.dispose()
  const premultiplied = exact.map((value, i) => (i % 4 === 3 ? value * 255 : value * 255 * exact[i - (i % 4) + 3]!))
  return differenceOf(premultiplied, live, limit)
}

function stepResults(camera: I420Picture): ParityResult[] {
  return steps.flatMap((step) => {
    const limit = limits[step.kind]
    const random = STEP_SEEDS.flatMap((seed) => {
      const { call, runs } = stepCases(step, seed)
      return runs.map((frames, i) => ({
        name: step.kind,
        what: `seed ${seed}, picture ${i}: ${JSON.stringify(call)}`,
        ...treatedDifference(frames, [call], limit),
      }))
    })
    return [...random, { name: step.kind, what: 'stand-in camera', ...treatedDifference([camera], [usualCall(step)], limit) }]
  })
}

function chainResults(): ParityResult[] {
  return CHAIN_SEEDS.map((seed) => {
    const { chain, frames } = chainCase(seed)
    return { name: 'chains', what: `seed ${seed}: ${JSON.stringify(chain)}`, ...treatedDifference(frames, chain, CHAIN_LIMIT) }
  })
}

/** Placements: halved, turned, faint, with round corners, over black. */
function drawResults(camera: I420Picture): ParityResult[] {
  const { widthPx, heightPx } = camera
  const plan = planInput('camera', { widthPx, heightPx, isOpaque: true }, [usualCall(steps.find((step) => step.kind === 'chromaKey')!)], widthPx, heightPx)
  const whole = rootOf(plan).items[0]!
  const shape = whole.coverage.shape as Extract<Shape, { kind: 'roundedRect' }>
  const paint = whole.paint as Extract<Paint, { kind: 'node' }>
  const shapes: Readonly<Record<string, Partial<Item>>> = {
    'shrunk and moved': { paint: { ...paint, toNode: { a: 1.5, b: 0, c: 0, d: 1.5, e: -30, f: -12 } } },
    'turned and faint': { paint: { ...paint, toNode: { a: 0.9, b: 0.2, c: -0.2, d: 0.9, e: 40, f: -20 } }, opacity: 0.6 },
    'round corners': { coverage: { ...whole.coverage, shape: { ...shape, cornerRadius: 40 } } },
    'part of the canvas': { bounds: { left: 31, top: 17, right: 300, bottom: 211 } },
  }
  return Object.entries(shapes).map(([what, change]) => {
    const shaped = withItems(plan, 'black', () => [
      { ...whole, ...change },
      { ...whole, opacity: 0.3 },
    ])
    const treatments = new GlTreatments(device)
    const executor = new GlExecutor(treatments)
    const live = executor.render(shaped, new Map([['input:camera', { picture: camera, version: 1, isLive: true }]])).data
    const exact = renderReference(shaped, new Map([['input:camera', camera]])).data.map((value) => value * 255)
    const result = { name: 'drawing', what, ...differenceOf(exact, live, 3) }
    executor.dispose()
    treatments.dispose()
    return result
  })
}

function sceneResult(name: string, plan: FramePlan, pictures: readonly (readonly [string, Picture])[]): ParityResult {
  const treatments = new GlTreatments(device)
  const executor = new GlExecutor(treatments)
  const framesAt = (version: number) =>
    new Map(pictures.map(([id, picture]) => [id, picture.format === 'i420' ? { picture, version, isLive: true } : { picture, version: 1, isLive: false }]))
  const exact = renderReference(plan, new Map(pictures)).data.map((value) => value * 255)
  const first = differenceOf(exact, executor.render(plan, framesAt(1)).data, 3)
  const second = differenceOf(exact, executor.render(plan, framesAt(2)).data, 3)
  executor.dispose()
  treatments.dispose()
  return { name: 'scenes', what: name, max: Math.max(first.max, second.max), shareAbove: Math.max(first.shareAbove, second.shareAbove) }
}

function planResults(): ParityResult[] {
  const plans = PLAN_SEEDS.map((seed) => ({ what: `plan ${seed}`, ...planCase(seed) }))
  const shows = SHOW_SEEDS.map((seed) => {
    const one = showCase(seed)
    const plan = planFrame(one.show, { scene: one.show.scenes[0]! }, 0, one.infos)
    return { what: `show ${seed}`, plan, pictures: picturesFor(one, plan), live: new Set(['input:camera']) }
  })
  const moving = MOVING_SEEDS.map((seed) => {
    const one = movingCase(seed)
    const plan = planFrame(one.show, one.stage, one.timeMs, one.infos)
    return { what: `moving ${seed}`, plan, pictures: picturesFor(one, plan), live: new Set(['input:camera']) }
  })
  return [...plans, ...shows, ...moving].map(({ what, plan, pictures, live }) => {
    const treatments = new GlTreatments(device)
    const executor = new GlExecutor(treatments)
    const frames = new Map([...pictures].map(([id, picture]) => [id, { picture, version: 1, isLive: live.has(id) }] as const))
    const exact = renderReference(plan, pictures).data.map((value) => value * 255)
    const result = differenceOf(exact, executor.render(plan, frames).data, PLAN_LIMIT)
    executor.dispose()
    treatments.dispose()
    return { name: 'plans', what, ...result }
  })
}

async function executorsFor(
  kernels: Uint8Array<ArrayBuffer>,
  onChange: (state: ExecutorState) => void,
  canvas = new OffscreenCanvas(1, 1),
): Promise<Executors> {
  return new Executors(new Treatments(await Heap.create(kernels)), () => canvas.getContext('webgl2'), onChange)
}

/** The graphics card is taken away between two frames, as WEBGL_lose_context does, and given back. */
async function lossResults(camera: I420Picture, kernels: Uint8Array<ArrayBuffer>): Promise<LossResults> {
  const states: string[] = []
  let onCard: () => void = () => {}
  const canvas = new OffscreenCanvas(1, 1)
  const isTold = new Promise((resolve) => canvas.addEventListener('webglcontextlost', resolve))
  const note = ({ name, reason }: ExecutorState) => {
    states.push(`${name} ${reason}`)
    if (name === 'gl') onCard()
  }
  const executors = await executorsFor(kernels, note, canvas)
  executors.pin('gl')
  const executor = executors.make()
  const { widthPx, heightPx } = camera
  const plan = planInput('camera', { widthPx, heightPx, isOpaque: true }, [usualCall(steps.find((step) => step.kind === 'sharpen')!)], widthPx, heightPx)
  const exact = renderReference(plan, new Map([['input:camera', camera]])).data.map((value) => value * 255)
  let version = 0
  const render = (what: string): ParityResult => {
    version += 1
    const { data } = executor.render(plan, new Map([['input:camera', { picture: camera, version, isLive: true }]]))
    return { name: executor.name, what, ...differenceOf(exact, data, 3) }
  }
  const before = render('before')
  const isBack = new Promise<void>((resolve) => (onCard = resolve))
  executors.simulateLoss(true)
  const atLoss = render('the very next frame')
  // The browser takes a context back only after it has told of the loss.
  await isTold
  await new Promise((resolve) => setTimeout(resolve))
  executors.simulateLoss(false)
  await isBack
  const restored = render('restored')
  executor.dispose()
  executors.pin('cpu')
  return { before, atLoss, restored, states }
}

/** What is chosen by measuring when a graphics card drawn in software is offered. */
async function choice(kernels: Uint8Array<ArrayBuffer>): Promise<ExecutorState> {
  const executors = await executorsFor(kernels, () => {})
  executors.pin('auto')
  return executors.state
}

window.parity = { stepResults, chainResults, drawResults, sceneResult, planResults, leftOver: () => device.surfaceCount, lossResults, choice }
