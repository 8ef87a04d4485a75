// What a frame costs with more in the scene: layers that are still, that move, groups, a second output, blends, shadows. 720p, on the
// processor, planned and drawn.
import { PLAIN_FRAME } from '../../core/box/frame.ts'
import { newStep } from '../../core/steps/treatment.ts'
import { newInputLayer } from '../../core/layers/input.ts'
import { newGroupLayer } from '../../core/layers/group.ts'
import { inputSourceId } from '../../core/inputs/source-ids.ts'
import { blendModes, type BlendName } from '../../core/blend/index.ts'
import type { I420Picture } from '../../core/picture/picture.ts'
import type { FramePlan } from '../../core/plan/frame-plan.ts'
import { planOutputs } from '../../core/stage/plan-frame.ts'
import { BARE_SCENE } from '../../core/show/create.ts'
import type { Layer, Scene } from '../../core/show/show.ts'
import { goTo, type Stage } from '../../core/stage/stage.ts'
import { transitions } from '../../core/transitions/index.ts'
import { usualTransitions, type TransitionName } from '../../core/transitions/index.ts'
import { CpuExecutor } from '../../engine/cpu/cpu-executor.ts'
import { Treatments } from '../../engine/cpu/treatments.ts'
import type { SourceFrame } from '../../engine/executor.ts'
import { nodeHeap } from '../../server/cli/node-engine.ts'
import { cameraFrames, referenceScene, type ReferenceScene } from './reference-scene.ts'
import { quantile } from './statistics.ts'

const ROUNDS = 4
const BLOCK = 25
const WARM_UP = 30
const FRAME_MS = 1000 / 30

export interface SceneFigures {
  /** Median milliseconds a frame. */
  readonly plain: number
  /** So many still layers under the live camera. */
  readonly layers: Readonly<Record<'1' | '10' | '40' | '160', number>>
  readonly moveOneOf40: number
  readonly moving40: number
  /** The camera in a group with a treatment of its own. */
  readonly groupTreated: number
  /** Two outputs, of which one has a small layer more. */
  readonly secondFeed: number
  /** On the way from the scene to another that costs as much, all of the time. */
  readonly transitions: Readonly<Record<TransitionName, number>>
  /** A faint layer over the whole canvas, by how it is blended. */
  readonly blends: Readonly<Record<BlendName, number>>
  readonly shadows10: number
}

/** What one figure is measured on: the stages of a frame, by its number. */
type Subject = (frame: number) => Readonly<Record<string, Stage>>

export async function benchScene(say: (text: string) => void): Promise<SceneFigures> {
  const reference = await referenceScene(1280)
  const frames = await cameraFrames(1280, 720, BLOCK)
  const { plain, ...subjects } = subjectsOf(reference)
  say(`scene: ${Object.keys(subjects).length} scenes, ${ROUNDS * BLOCK} frames each, in turn with as many plain ones`)
  const plains: number[] = []
  const ratios: Record<string, number> = { plain: 1 }
  for (const [name, subject] of Object.entries(subjects)) {
    const pair = [await SceneRun.begin(reference, frames, plain!), await SceneRun.begin(reference, frames, subject)] as const
    for (let round = 0; round < ROUNDS; round += 1) for (const run of pair) run.go(BLOCK)
    const [plainMs, subjectMs] = [quantile(pair[0].times, 0.5), quantile(pair[1].times, 0.5)]
    plains.push(plainMs)
    ratios[name] = subjectMs / plainMs
    for (const run of pair) run.dispose()
  }
  const plainMs = quantile(plains, 0.5)
  // The machine is not as fast at one time as at another: what counts is the ratio to plain frames of the same seconds.
  const of = (name: string) => ratios[name]! * plainMs
  return {
    plain: of('plain'),
    layers: { '1': of('still 1'), '10': of('still 10'), '40': of('still 40'), '160': of('still 160') },
    moveOneOf40: of('moveOneOf40'),
    moving40: of('moving40'),
    groupTreated: of('groupTreated'),
    secondFeed: of('secondFeed'),
    transitions: Object.fromEntries(Object.keys(transitions).map((kind) => [kind, of(`transition ${kind}`)])) as Record<TransitionName, number>,
    blends: Object.fromEntries(blendModes.map(({ name }) => [name, of(`blend ${name}`)])) as Record<BlendName, number>,
    shadows10: of('shadows10'),
  }
}

/** One scene that is drawn frame after frame, as the engine does it. */
class SceneRun {
  readonly times: number[] = []
  readonly #treatments: Treatments
  readonly #executor: CpuExecutor
  readonly #sources: Map<string, SourceFrame>
  #planned: ReturnType<Subject> | null = null
  #plan: FramePlan = { nodes: [], outputs: {}, texts: [], outlines: [], missing: [], validUntilMs: Infinity }
  #frame = 0

  private constructor(
    readonly reference: ReferenceScene,
    readonly frames: readonly I420Picture[],
    readonly subject: Subject,
    treatments: Treatments,
  ) {
    this.#treatments = treatments
    this.#executor = new CpuExecutor(treatments)
    this.#sources = new Map([...reference.stills].map(([id, picture]) => [id, { picture, version: 1, isLive: false }]))
  }

  static async begin(reference: ReferenceScene, frames: readonly I420Picture[], subject: Subject): Promise<SceneRun> {
    const run = new SceneRun(reference, frames, subject, new Treatments(await nodeHeap()))
    run.go(WARM_UP)
    run.times.length = 0
    return run
  }

  go(frames: number): void {
    for (let i = 0; i < frames; i += 1) this.times.push(this.#draw())
  }

  dispose(): void {
    this.#executor.dispose()
    this.#treatments.dispose()
  }

  /** Milliseconds that the next frame takes. */
  #draw(): number {
    const { show, infos, cameraId } = this.reference
    this.#sources.set(cameraId, { picture: this.frames[this.#frame % this.frames.length]!, version: this.#frame + 2, isLive: true })
    const stages = this.subject(this.#frame)
    const timeMs = this.#frame * FRAME_MS
    this.#frame += 1
    const started = performance.now()
    // Planned again only when something changed.
    if (this.#planned !== stages || timeMs >= this.#plan.validUntilMs) this.#plan = planOutputs(show, stages, timeMs, infos)
    this.#planned = stages
    this.#executor.renderOutputs(this.#plan, this.#sources)
    return performance.now() - started
  }
}

function subjectsOf({ show, scene, cameraId }: ReferenceScene): Record<string, Subject> {
  const mark = show.inputs.find((input) => input.name === 'Society mark')!
  const wall = show.inputs.find((input) => input.name === 'Apiary wall')!
  let count = 0
  const makeId = () => `bench${(count += 1)}`
  const small = (i: number): Layer => ({
    ...newInputLayer(mark, show.canvas, makeId),
    placement: { x: 20 + ((i * 97) % 1160), y: 10 + ((i * 61) % 620), width: 90, height: 90, angleDeg: 0, fit: 'fit' },
  })
  const smalls = (many: number, change: (layer: Layer, i: number) => Layer = (layer) => layer) => Array.from({ length: many }, (_, i) => change(small(i), i))
  const cameraAt = scene.layers.findIndex((layer) => layer.kind === 'input' && inputSourceId(layer.inputId) === cameraId)
  const under = (layers: readonly Layer[]): Scene => ({ ...scene, layers: scene.layers.toSpliced(cameraAt, 0, ...layers) })
  const still = (one: Scene): Subject => {
    const stages = { feed: { scene: one } }
    return () => stages
  }
  const movedBy = (layer: Layer, by: number): Layer => ({ ...layer, placement: { ...layer.placement, x: layer.placement.x + by } })
  const forty = smalls(40)
  const camera = scene.layers[cameraAt]!
  const group = { ...newGroupLayer('Group', [camera], show.canvas, makeId), treatment: [newStep('tone', makeId)] }
  const whole = (blend: BlendName): Layer => ({ ...newInputLayer(wall, show.canvas, makeId), opacity: 0.5, blend })
  const shadow = { dx: 4, dy: 6, blurPx: 16, colour: '#000000', opacity: 0.5 }
  // A scene that costs as much: what is over the camera lies elsewhere.
  const elsewhere = (layer: Layer): Layer => ({ ...layer, placement: { ...layer.placement, x: layer.placement.x * 0.8 } })
  const other: Scene = { ...BARE_SCENE, id: makeId(), name: 'Other', layers: scene.layers.map((layer, i) => (i > cameraAt ? elsewhere(layer) : layer)) }
  const two = { feed: { scene }, recording: { scene: { ...scene, layers: [...scene.layers, small(5)] } } }
  return {
    plain: still(scene),
    ...Object.fromEntries([1, 10, 40, 160].map((many) => [`still ${many}`, still(under(smalls(many)))])),
    moveOneOf40: (frame) => ({ feed: { scene: under(forty.map((layer, i) => (i === 20 ? movedBy(layer, frame % 60) : layer))) } }),
    moving40: (frame) => ({ feed: { scene: under(forty.map((layer) => movedBy(layer, frame % 60))) } }),
    groupTreated: still({ ...scene, layers: scene.layers.with(cameraAt, group) }),
    secondFeed: () => two,
    ...Object.fromEntries(
      [...Object.values(usualTransitions), { ...usualTransitions.wipe, kind: 'pictureWipe' as const, inputId: wall.id, softness: 0.2 }].map((transition) => {
        const durationMs = (WARM_UP + ROUNDS * BLOCK) * FRAME_MS * 1.01
        const stages = { feed: goTo({ scene }, other, { ...transition, durationMs }, 0) }
        return [`transition ${transition.kind}`, () => stages] as const
      }),
    ),
    ...Object.fromEntries(blendModes.map(({ name }) => [`blend ${name}`, still({ ...scene, layers: [...scene.layers, whole(name)] })])),
    shadows10: still(under(smalls(10, (layer) => ({ ...layer, frame: { ...PLAIN_FRAME, shadow } })))),
  }
}
