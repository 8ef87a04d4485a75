// What more steps cost on the reference scene, at 720p: blocks of frames taken in turn, so that all meet the same machine.
import type { I420Picture, RgbaPicture } from '../../core/picture/picture.ts'
import type { Plane } from '../../core/picture/float-picture.ts'
import type { FramePlan } from '../../core/plan/frame-plan.ts'
import { parseHex } from '../../core/colour/hex.ts'
import { findKey, solvedCalls } from '../../core/solve/find-key.ts'
import { plainContext } from '../../core/steps/chain.ts'
import { stepOf, type StepCall, type StepKind } from '../../core/steps/index.ts'
import { defaultParams, type ParamSpecs, type ParamValue } from '../../core/steps/step.ts'
import { CpuExecutor } from '../../engine/cpu/cpu-executor.ts'
import { treatStill } from '../../engine/cpu/treat-still.ts'
import { Treatments, type ChainResources } from '../../engine/cpu/treatments.ts'
import type { SourceFrame } from '../../engine/executor.ts'
import { PERSON_HEIGHT_PX, PERSON_WIDTH_PX } from '../../engine/person/person-protocol.ts'
import { nodeHeap } from '../../server/cli/node-engine.ts'
import { treatedNodes } from '../../core/plan/read-plan.ts'
import { withSteps } from '../support/plans.ts'
import { cameraFrames, referenceScene, type ReferenceScene } from './reference-scene.ts'
import { quantile } from './statistics.ts'

const BLOCK = 40
const ROUNDS = 5
const WARM_UP = 25
/** A new mask comes with every second frame: 15 a second. */
const FRAMES_PER_MASK = 2

export interface ChainFigures {
  /** Median milliseconds a frame of the whole scene. */
  readonly referenceMs: number
  /** The same with balance, a look of 33³ points and sharpening. */
  readonly gradedMs: number
  readonly gradedOverReference: number
  /** The room softened in place of the key. */
  readonly roomSoftenedMs: number
  /** Key on a measured backdrop, solved edge and spill, as "find it for me" makes them. */
  readonly foundKeyMs: number
  /** Colour functions only: one step, eight steps. */
  readonly onePointMs: number
  readonly eightPointsMs: number
  readonly eightOverOne: number
}

export async function benchChains(say: (text: string) => void): Promise<ChainFigures> {
  const scene = await referenceScene(1280)
  const frames = await cameraFrames(1280, 720, BLOCK)
  const steps = cameraSteps(scene)
  const chains = chainsFor(steps, await solveKey(frames[0]!, steps))
  const rigs = await Promise.all(
    Object.entries(chains).map(async ([name, steps]) => new Rig(name, scene, steps, await nodeHeap().then((heap) => new Treatments(heap)))),
  )
  say(`frame: chains, ${rigs.length} of them, ${BLOCK * ROUNDS} frames each`)
  for (const rig of rigs) rig.run(frames.slice(0, WARM_UP), false)
  for (let round = 0; round < ROUNDS; round += 1) for (const rig of rigs) rig.run(frames, true)
  const of = (name: keyof typeof chains) => quantile(rigs.find((rig) => rig.name === name)!.times, 0.5)
  return {
    referenceMs: of('reference'),
    gradedMs: of('graded'),
    gradedOverReference: of('graded') / of('reference'),
    roomSoftenedMs: of('room'),
    foundKeyMs: of('found'),
    onePointMs: of('one'),
    eightPointsMs: of('eight'),
    eightOverOne: of('eight') / of('one'),
  }
}

/** One executor on the scene with another chain for its camera. */
class Rig {
  readonly name: string
  readonly times: number[] = []
  readonly #scene: ReferenceScene
  readonly #plan: FramePlan
  readonly #treatments: Treatments
  readonly #executor: CpuExecutor
  readonly #sources: Map<string, SourceFrame>
  #version = 1

  constructor(name: string, scene: ReferenceScene, steps: readonly StepCall[], treatments: Treatments) {
    this.name = name
    this.#scene = scene
    this.#treatments = treatments
    this.#executor = new CpuExecutor(treatments)
    this.#plan = withSteps(scene.plan, scene.cameraId, steps, name)
    this.#sources = new Map([...scene.stills].map(([id, picture]) => [id, { picture, version: 1, isLive: false }]))
  }

  run(frames: readonly I420Picture[], isTimed: boolean): void {
    for (const picture of frames) {
      this.#version += 1
      this.#sources.set(this.#scene.cameraId, { picture, version: this.#version, isLive: true })
      if (this.#version % FRAMES_PER_MASK === 0) this.#treatments.setPerson(this.#scene.cameraId, roundMask())
      const started = performance.now()
      this.#executor.render(this.#plan, this.#sources)
      if (isTimed) this.times.push(performance.now() - started)
    }
  }
}

function cameraSteps(scene: ReferenceScene): readonly StepCall[] {
  return treatedNodes(scene.plan).find((node) => node.sourceId === scene.cameraId)!.steps
}

/** What "find it for me" makes of the first frame. */
async function solveKey(frame: I420Picture, steps: readonly StepCall[]): Promise<readonly StepCall[]> {
  const heap = await nodeHeap()
  const treat = (picture: I420Picture | RgbaPicture, calls: readonly StepCall[], resources: ChainResources) => treatStill(heap, picture, calls, { resources })
  const crop = steps.filter((step) => step.kind === 'crop')
  const before = steps.filter((step) => step.kind === 'chromaKey')
  const picture = treat(frame, crop, plainContext(frame.widthPx, frame.heightPx))
  const found = findKey({ picture, hint: parseHex('#2bb552'), plate: null, before, treat })
  if (found === null) throw new Error('no cloth was found')
  return solvedCalls(found)
}

function call(kind: StepKind, params: Readonly<Record<string, ParamValue>> = {}): StepCall {
  return { kind, params: { ...defaultParams(stepOf(kind).params as ParamSpecs), ...params } } as unknown as StepCall
}

function chainsFor(reference: readonly StepCall[], foundKey: readonly StepCall[]) {
  const crop = reference.filter((step) => step.kind === 'crop')
  const points = [
    call('tone', { exposure: 0.1 }),
    call('balance', { temperature: 6000 }),
    call('colour', { saturation: 1.1 }),
    call('tone', { contrast: 1.05 }),
    call('lumaKey', { to: 0.01 }),
    call('colour', { hue: 4 }),
    call('look', { look: 'linen', amount: 0.4 }),
    call('balance', { tint: 4 }),
  ]
  return {
    reference,
    graded: [...reference, call('balance', { temperature: 5800, tint: 3 }), call('look', { look: 'morningTea' }), call('sharpen')],
    room: [...crop, call('tone', { contrast: 1.04 }), call('room', { effect: 'softened', softness: 3 })],
    found: [...crop, ...foundKey],
    one: [...crop, ...points.slice(0, 1)],
    eight: [...crop, ...points],
  }
}

/** A round person with an edge of four mask pixels, as the model gives it; a new object each time: a new mask. */
function roundMask(): Plane {
  const data = new Float32Array(PERSON_WIDTH_PX * PERSON_HEIGHT_PX)
  for (let i = 0; i < data.length; i += 1) {
    const distance = Math.hypot((i % PERSON_WIDTH_PX) / PERSON_WIDTH_PX - 0.5, Math.floor(i / PERSON_WIDTH_PX) / PERSON_HEIGHT_PX - 0.65)
    data[i] = Math.min(1, Math.max(0, (0.4 - distance) * 60))
  }
  return { widthPx: PERSON_WIDTH_PX, heightPx: PERSON_HEIGHT_PX, data }
}
