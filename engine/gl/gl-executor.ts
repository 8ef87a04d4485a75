// The live executor for machines with a graphics card. Premultiplied, sRGB-encoded, origin top left.
import type { RgbaPicture } from '../../core/picture/picture.ts'
import { firstOutput, type FramePlan, type Item, type NodeIndex, type OutputId, type PlanNode, type StackNode } from '../../core/plan/frame-plan.ts'
import type { Executor, SourceFrames } from '../executor.ts'
import type { GlDevice, Pass, Surface } from './device.ts'
import type { GlTreatments } from './gl-treatments.ts'
import { ITEM_VALUES, itemPass, itemValues } from './item-pass.ts'
import { NO_VALUES } from './spatial/gl-work.ts'

const COPY = `void main() { result = texelFetch(t0, here, 0); }`

export class GlExecutor implements Executor {
  readonly name = 'gl'
  readonly #device: GlDevice
  readonly #treatments: GlTreatments
  readonly #copy: Pass
  readonly #values = new Float32Array(ITEM_VALUES)
  /** Surfaces for stacks, by their place in the plan. */
  readonly #canvases = new Map<NodeIndex, Surface>()
  readonly #outs = new Map<OutputId, { readonly bytes: Surface; readonly data: Uint8ClampedArray<ArrayBuffer> }>()
  /** What is under an item that the shader blends. */
  #under: Surface | null = null
  /** What a pass reads where it has nothing to read. */
  #nothing: Surface | null = null

  /** Executors that draw the same inputs share `treatments`, so that each is treated once. */
  constructor(treatments: GlTreatments) {
    this.#device = treatments.device
    this.#treatments = treatments
    this.#copy = this.#device.pass(COPY, 1, 0)
  }

  render(plan: FramePlan, sources: SourceFrames): RgbaPicture {
    return this.renderOutputs(plan, sources).get(firstOutput(plan))!
  }

  /** Throws a GraphicsError when the graphics card was lost; nothing of a half-made picture gets out. */
  renderOutputs(plan: FramePlan, sources: SourceFrames, ids: readonly OutputId[] = Object.keys(plan.outputs)): Map<OutputId, RgbaPicture> {
    this.#freeOthers(plan)
    const made: (Surface | null)[] = []
    plan.nodes.forEach((node, index) => made.push(this.#make(node, index, made, sources)))
    const pictures = new Map<OutputId, RgbaPicture>()
    for (const id of ids) {
      const index = plan.outputs[id]!
      const { widthPx, heightPx } = plan.nodes[index]!
      const out = this.#outFor(id, widthPx, heightPx)
      if (made[index] !== null) this.#device.run(this.#copy, out.bytes, [made[index]!], NO_VALUES)
      this.#device.read(out.bytes, out.data)
      pictures.set(id, { format: 'rgba', widthPx, heightPx, data: out.data })
    }
    return pictures
  }

  dispose(): void {
    for (const surface of this.#canvases.values()) this.#device.free(surface)
    for (const { bytes } of this.#outs.values()) this.#device.free(bytes)
    if (this.#under !== null) this.#device.free(this.#under)
    if (this.#nothing !== null) this.#device.free(this.#nothing)
    this.#canvases.clear()
    this.#outs.clear()
    this.#under = null
    this.#nothing = null
  }

  /** The picture of a node; null without its source. */
  #make(node: PlanNode, index: NodeIndex, made: readonly (Surface | null)[], sources: SourceFrames): Surface | null {
    if (node.kind === 'stack') return this.#stack(node, index, made)
    if (node.kind === 'filtered') {
      const before = made[node.of] ?? null
      return before === null ? null : this.#treatments.filtered(node, before)
    }
    const source = sources.get(node.sourceId)
    return source === undefined ? null : this.#treatments.treated(node, source)
  }

  #stack(node: StackNode, index: NodeIndex, made: readonly (Surface | null)[]): Surface {
    const canvas = this.#canvasFor(index, node)
    const { gl } = this.#device
    gl.bindFramebuffer(gl.FRAMEBUFFER, canvas.frame)
    gl.clearColor(0, 0, 0, node.ground === 'black' ? 1 : 0)
    gl.clear(gl.COLOR_BUFFER_BIT)
    gl.blendFunc(gl.ONE, gl.ONE_MINUS_SRC_ALPHA)
    for (const item of node.items) {
      const picture = item.paint.kind === 'node' ? made[item.paint.node]! : null
      if (item.paint.kind === 'node' && picture === null) continue
      const { reveal } = item.coverage
      this.#put(item, picture, reveal?.kind === 'luma' ? (made[reveal.node] ?? null) : null, canvas)
    }
    return canvas
  }

  #put(item: Item, picture: Surface | null, veil: Surface | null, canvas: Surface): void {
    const { left, top, right, bottom } = item.bounds
    if (right <= left || bottom <= top) return
    const { gl } = this.#device
    const pass = itemPass(this.#device, item)
    const isFixed = item.blend === 'normal'
    itemValues(item, this.#values)
    // Treating draws into other surfaces, whole and without blending: both are on for this item alone.
    gl.enable(gl.SCISSOR_TEST)
    gl.scissor(left, top, right - left, bottom - top)
    const nothing = this.#nothingFor()
    const under = isFixed ? nothing : this.#copyOf(canvas)
    if (isFixed) gl.enable(gl.BLEND)
    this.#device.run(pass, canvas, [picture ?? nothing, under, veil ?? nothing], this.#values)
    gl.disable(gl.BLEND)
    gl.disable(gl.SCISSOR_TEST)
  }

  /** What is on a canvas now, where the scissors let it; valid until the next call. */
  #copyOf(canvas: Surface): Surface {
    if (this.#under?.widthPx !== canvas.widthPx || this.#under.heightPx !== canvas.heightPx) {
      if (this.#under !== null) this.#device.free(this.#under)
      this.#under = this.#device.surface('half', canvas.widthPx, canvas.heightPx)
    }
    this.#device.run(this.#copy, this.#under, [canvas], NO_VALUES)
    return this.#under
  }

  #nothingFor(): Surface {
    this.#nothing ??= this.#device.surface('bytes', 1, 1)
    return this.#nothing
  }

  #canvasFor(index: NodeIndex, { widthPx, heightPx }: StackNode): Surface {
    const known = this.#canvases.get(index)
    if (known !== undefined) return known
    const canvas = this.#device.surface('half', widthPx, heightPx)
    this.#canvases.set(index, canvas)
    return canvas
  }

  #outFor(id: OutputId, widthPx: number, heightPx: number) {
    const known = this.#outs.get(id)
    if (known !== undefined) return known
    const out = { bytes: this.#device.surface('bytes', widthPx, heightPx), data: new Uint8ClampedArray(widthPx * heightPx * 4) }
    this.#outs.set(id, out)
    return out
  }

  /** Frees what a plan has no use for: of another size, or none of its nodes. */
  #freeOthers(plan: FramePlan): void {
    for (const [index, surface] of [...this.#canvases]) {
      const node = plan.nodes[index]
      if (node?.kind === 'stack' && node.widthPx === surface.widthPx && node.heightPx === surface.heightPx) continue
      this.#device.free(surface)
      this.#canvases.delete(index)
    }
    for (const [id, { bytes }] of [...this.#outs]) {
      const node = plan.outputs[id] === undefined ? undefined : plan.nodes[plan.outputs[id]]
      if (node?.widthPx === bytes.widthPx && node.heightPx === bytes.heightPx) continue
      this.#device.free(bytes)
      this.#outs.delete(id)
    }
  }
}
