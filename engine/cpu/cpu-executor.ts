// The live executor for machines without a GPU. Packed RGBA, premultiplied, sRGB-encoded,
// origin top left. Runs of still draws are flattened once; only the rectangle that live draws
// touch is made anew in each frame.
import type { PixelRect, RgbaPicture } from '../../core/picture/picture.ts'
import type { FramePlan } from '../../core/plan/frame-plan.ts'
import type { Executor, SourceFrames } from '../executor.ts'
import { DrawJob, type HeapCanvas } from './draw-job.ts'
import type { Block, Heap } from './heap.ts'
import type { Treatments } from './treatments.ts'

const OPAQUE_BLACK = 0xff000000

/** Still draws between two live ones, flattened over nothing. */
interface StillRun {
  readonly kind: 'still'
  readonly jobs: readonly DrawJob[]
  readonly versions: Int32Array
  readonly block: Block
  readonly bounds: PixelRect
  isMade: boolean
  /** Of the treatments it was made with. */
  generation: number
}

interface LiveRun {
  readonly kind: 'live'
  readonly job: DrawJob
}

/** What an executor keeps for one plan object. */
interface PlanState {
  readonly plan: FramePlan
  readonly backRun: StillRun
  readonly runs: readonly (StillRun | LiveRun)[]
  /** Everything a live draw may touch. */
  readonly liveBounds: PixelRect
  readonly outBlock: Block
  readonly out: HeapCanvas
  /** Draws whose source had a picture. */
  readonly presentDraws: number
  hasWholeFrame: boolean
}

/** Runs plans with tables and WebAssembly loops. */
export class CpuExecutor implements Executor {
  readonly name = 'cpu'
  readonly #treatments: Treatments
  readonly #heap: Heap
  #state: PlanState | null = null

  /** Executors that draw the same inputs share `treatments`, so that each is treated once. */
  constructor(treatments: Treatments) {
    this.#treatments = treatments
    this.#heap = treatments.heap
  }

  render(plan: FramePlan, sources: SourceFrames): RgbaPicture {
    if (this.#state?.plan !== plan || !isCurrent(this.#state, sources)) this.#prepare(plan, sources)
    const state = this.#state!
    const { out } = state
    if (this.#refresh(state.backRun, sources, out, plan.ground === 'black' ? OPAQUE_BLACK : 0)) state.hasWholeFrame = false
    for (let i = 0; i < state.runs.length; i += 1) {
      const run = state.runs[i]!
      if (run.kind === 'still' && this.#refresh(run, sources, out, 0)) state.hasWholeFrame = false
    }
    this.#compose(state, sources, state.hasWholeFrame ? state.liveBounds : wholeOf(out))
    state.hasWholeFrame = true
    const bytes = new Uint8ClampedArray(this.#heap.bytes.buffer, out.at, out.widthPx * out.heightPx * 4)
    return { format: 'rgba', widthPx: out.widthPx, heightPx: out.heightPx, data: bytes }
  }

  dispose(): void {
    if (this.#state !== null) this.#discard(this.#state)
    this.#state = null
  }

  #compose(state: PlanState, sources: SourceFrames, region: PixelRect): void {
    const { out, runs } = state
    let base = state.backRun.block.at
    const first = runs[0]
    // The first live draw reads the still back and writes the frame; what it doesn't touch is copied.
    if (first === undefined || first.kind === 'still' || !covers(first.job.draw.bounds, region)) {
      this.#copy(base, out, region)
      base = out.at
    }
    for (let i = 0; i < runs.length; i += 1) {
      const run = runs[i]!
      if (run.kind === 'still') {
        this.#overlay(run, out, region)
      } else {
        run.job.run(sources.get(run.job.draw.sourceId)!, this.#treatments, base, out, region)
      }
      base = out.at
    }
  }

  #prepare(plan: FramePlan, sources: SourceFrames): void {
    if (this.#state !== null) this.#discard(this.#state)
    this.#state = null
    const uses = new Map<string, number>()
    for (const draw of plan.draws) uses.set(draw.treatedKey, (uses.get(draw.treatedKey) ?? 0) + 1)
    const runs: (StillRun | LiveRun)[] = []
    let backRun: StillRun | null = null
    let liveBounds: PixelRect | null = null
    let pending: DrawJob[] = []
    const closePending = () => {
      if (backRun === null) backRun = this.#stillRun(pending, plan)
      else if (pending.length > 0) runs.push(this.#stillRun(pending, plan))
      pending = []
    }
    for (const draw of plan.draws) {
      const source = sources.get(draw.sourceId)
      if (source === undefined) continue
      const job = new DrawJob(this.#heap, draw, uses.get(draw.treatedKey) === 1)
      if (!source.isLive) {
        pending.push(job)
        continue
      }
      closePending()
      runs.push({ kind: 'live', job })
      liveBounds = unite(liveBounds, draw.bounds)
    }
    closePending()
    const outBlock = this.#heap.allocate(plan.widthPx * plan.heightPx * 4)
    this.#state = {
      plan,
      backRun: backRun ?? this.#stillRun([], plan),
      runs,
      liveBounds: liveBounds ?? { left: 0, top: 0, right: 0, bottom: 0 },
      outBlock,
      out: { widthPx: plan.widthPx, heightPx: plan.heightPx, at: outBlock.at },
      presentDraws: countPresent(plan, sources),
      hasWholeFrame: false,
    }
  }

  #stillRun(jobs: readonly DrawJob[], plan: FramePlan): StillRun {
    let bounds: PixelRect | null = null
    for (const job of jobs) bounds = unite(bounds, job.draw.bounds)
    return {
      kind: 'still',
      jobs,
      versions: new Int32Array(jobs.length).fill(-1),
      block: this.#heap.allocate(plan.widthPx * plan.heightPx * 4),
      bounds: bounds ?? { left: 0, top: 0, right: 0, bottom: 0 },
      isMade: false,
      generation: -1,
    }
  }

  #discard(state: PlanState): void {
    const discardRun = (run: StillRun) => {
      for (const job of run.jobs) job.dispose()
      this.#heap.free(run.block)
    }
    discardRun(state.backRun)
    for (const run of state.runs) {
      if (run.kind === 'still') discardRun(run)
      else run.job.dispose()
    }
    this.#heap.free(state.outBlock)
  }

  /** Flattens a run again if a source of it has a new picture, or a look or plate of it came late; says whether it did. */
  #refresh(run: StillRun, sources: SourceFrames, out: HeapCanvas, ground: number): boolean {
    const { generation } = this.#treatments
    let isMade = run.isMade && run.generation === generation
    run.generation = generation
    for (let i = 0; i < run.jobs.length; i += 1) {
      const { version } = sources.get(run.jobs[i]!.draw.sourceId)!
      if (run.versions[i] !== version) isMade = false
      run.versions[i] = version
    }
    if (isMade) return false
    const canvas = { widthPx: out.widthPx, heightPx: out.heightPx, at: run.block.at }
    this.#heap.kernels.fillRow(canvas.at, canvas.widthPx * canvas.heightPx, ground)
    for (const job of run.jobs) {
      job.run(sources.get(job.draw.sourceId)!, this.#treatments, canvas.at, canvas, job.draw.bounds)
    }
    run.isMade = true
    return true
  }

  #overlay(run: StillRun, out: HeapCanvas, region: PixelRect): void {
    const left = Math.max(run.bounds.left, region.left)
    const count = Math.min(run.bounds.right, region.right) - left
    const bottom = Math.min(run.bounds.bottom, region.bottom)
    if (count <= 0) return
    for (let y = Math.max(run.bounds.top, region.top); y < bottom; y += 1) {
      const at = (y * out.widthPx + left) * 4
      this.#heap.kernels.blendRow(run.block.at + at, out.at + at, out.at + at, count)
    }
  }

  #copy(base: number, out: HeapCanvas, region: PixelRect): void {
    const at = (region.top * out.widthPx + region.left) * 4
    const height = region.bottom - region.top
    if (height <= 0 || region.right <= region.left) return
    this.#heap.kernels.copyRows(base + at, out.at + at, (region.right - region.left) * 4, out.widthPx * 4, height)
  }
}

function countPresent(plan: FramePlan, sources: SourceFrames): number {
  let count = 0
  for (let i = 0; i < plan.draws.length; i += 1) if (sources.has(plan.draws[i]!.sourceId)) count += 1
  return count
}

/** Whether every source still is what the state was made for: there or not, live or still. */
function isCurrent(state: PlanState, sources: SourceFrames): boolean {
  if (countPresent(state.plan, sources) !== state.presentDraws) return false
  if (!areStill(state.backRun, sources)) return false
  for (let i = 0; i < state.runs.length; i += 1) {
    const run = state.runs[i]!
    if (run.kind === 'still') {
      if (!areStill(run, sources)) return false
    } else if (sources.get(run.job.draw.sourceId)?.isLive !== true) {
      return false
    }
  }
  return true
}

function areStill(run: StillRun, sources: SourceFrames): boolean {
  for (let i = 0; i < run.jobs.length; i += 1) {
    if (sources.get(run.jobs[i]!.draw.sourceId)?.isLive !== false) return false
  }
  return true
}

function wholeOf(canvas: HeapCanvas): PixelRect {
  return { left: 0, top: 0, right: canvas.widthPx, bottom: canvas.heightPx }
}

function unite(first: PixelRect | null, second: PixelRect): PixelRect {
  if (first === null) return second
  return {
    left: Math.min(first.left, second.left),
    top: Math.min(first.top, second.top),
    right: Math.max(first.right, second.right),
    bottom: Math.max(first.bottom, second.bottom),
  }
}

function covers(outer: PixelRect, inner: PixelRect): boolean {
  return outer.left <= inner.left && outer.top <= inner.top && outer.right >= inner.right && outer.bottom >= inner.bottom
}
