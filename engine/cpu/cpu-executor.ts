// The live executor for machines without a GPU. Packed RGBA, premultiplied, sRGB-encoded, origin top left. What stays as it is
// is flattened once and kept by what it shows; only the rectangle that live items touch is made anew in each frame.
import type { RgbaPicture } from '../../core/picture/picture.ts'
import { firstOutput, type FramePlan, type OutputId } from '../../core/plan/frame-plan.ts'
import type { Executor, SourceFrames } from '../executor.ts'
import type { Block, Heap } from './heap.ts'
import { JobTools } from './item-job.ts'
import { PreparedPlan } from './prepared-plan.ts'
import type { Treatments } from './treatments.ts'

interface Out {
  readonly block: Block
  readonly widthPx: number
  readonly heightPx: number
}

/** Runs plans with tables and WebAssembly loops. */
export class CpuExecutor implements Executor {
  readonly name = 'cpu'
  readonly #treatments: Treatments
  readonly #heap: Heap
  readonly #tools: JobTools
  readonly #outs = new Map<OutputId, Out>()
  #run: PreparedPlan | null = null

  /** Executors that draw the same inputs share `treatments`, so that each is treated once. */
  constructor(treatments: Treatments) {
    this.#treatments = treatments
    this.#heap = treatments.heap
    this.#tools = new JobTools(treatments)
  }

  render(plan: FramePlan, sources: SourceFrames): RgbaPicture {
    return this.renderOutputs(plan, sources).get(firstOutput(plan))!
  }

  renderOutputs(plan: FramePlan, sources: SourceFrames, ids: readonly OutputId[] = Object.keys(plan.outputs)): Map<OutputId, RgbaPicture> {
    this.#treatments.surfaces.beginFrame()
    this.#prepare(plan, sources)
    const run = this.#run!
    const pictures = new Map<OutputId, RgbaPicture>()
    for (const id of ids) {
      const out = this.#outs.get(id)!
      run.drawOutput(id, out.block.at)
      const bytes = new Uint8ClampedArray(this.#heap.bytes.buffer, out.block.at, out.widthPx * out.heightPx * 4)
      pictures.set(id, { format: 'rgba', widthPx: out.widthPx, heightPx: out.heightPx, data: bytes })
    }
    return pictures
  }

  dispose(): void {
    this.#run?.dispose()
    this.#run = null
    for (const { block } of this.#outs.values()) this.#heap.free(block)
    this.#outs.clear()
    this.#tools.dispose()
  }

  #prepare(plan: FramePlan, sources: SourceFrames): void {
    if (this.#run?.plan === plan && this.#run.takes(sources)) return
    // What moved is at rest once a plan is shown a second time.
    const before = this.#run === null || this.#run.plan === plan ? null : this.#run.itemKeys
    this.#run?.dispose()
    this.#run = null
    this.#fitOuts(plan)
    this.#run = new PreparedPlan(this.#tools, plan, sources, before)
  }

  /** A canvas of the right size for each output, and none for others. */
  #fitOuts(plan: FramePlan): void {
    for (const [id, { block, widthPx, heightPx }] of [...this.#outs]) {
      const node = plan.outputs[id] === undefined ? null : plan.nodes[plan.outputs[id]]!
      if (node?.widthPx === widthPx && node.heightPx === heightPx) continue
      this.#heap.free(block)
      this.#outs.delete(id)
    }
    for (const [id, index] of Object.entries(plan.outputs)) {
      if (this.#outs.has(id)) continue
      const { widthPx, heightPx } = plan.nodes[index]!
      this.#outs.set(id, { block: this.#treatments.allocate(widthPx * heightPx * 4), widthPx, heightPx })
    }
  }
}
