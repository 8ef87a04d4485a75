// The live executor for machines with a graphics card. Premultiplied, sRGB-encoded, origin top left.
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { Draw, FramePlan } from '../../core/plan/frame-plan.ts'
import type { Executor, SourceFrames } from '../executor.ts'
import type { GlDevice, Pass, Surface } from './device.ts'
import type { GlTreatments } from './gl-treatments.ts'
import { NO_VALUES } from './spatial/gl-work.ts'

// VALUE: 0–5 canvas to source, 6–11 canvas to frame, 12 frame width, 13 height, 14 corner radius, 15 opacity.
const DRAW = `
void main() {
  vec2 p = vec2(here) + 0.5;
  vec2 inFrame = vec2(VALUE[6] * p.x + VALUE[8] * p.y + VALUE[10], VALUE[7] * p.x + VALUE[9] * p.y + VALUE[11]);
  vec2 middle = vec2(VALUE[12], VALUE[13]) / 2.0;
  float radius = min(VALUE[14], min(middle.x, middle.y));
  vec2 off = abs(inFrame - middle) - (middle - radius);
  float distance = (off.x > 0.0 && off.y > 0.0 ? length(off) : max(off.x, off.y)) - radius;
  vec2 place = vec2(VALUE[0] * p.x + VALUE[2] * p.y + VALUE[4], VALUE[1] * p.x + VALUE[3] * p.y + VALUE[5]) - 0.5;
  result = between(t0, place) * clamp(0.5 - distance, 0.0, min(1.0, VALUE[12]) * min(1.0, VALUE[13])) * VALUE[15];
}`

const COPY = `void main() { result = texelFetch(t0, here, 0); }`

export class GlExecutor implements Executor {
  readonly name = 'gl'
  readonly #device: GlDevice
  readonly #treatments: GlTreatments
  readonly #draw: Pass
  readonly #copy: Pass
  readonly #values = new Float32Array(16)
  #canvas: Surface | null = null
  #bytes: Surface | null = null
  #out = new Uint8ClampedArray(0)

  /** Executors that draw the same inputs share `treatments`, so that each is treated once. */
  constructor(treatments: GlTreatments) {
    this.#device = treatments.device
    this.#treatments = treatments
    this.#draw = this.#device.pass(DRAW, 1, 16)
    this.#copy = this.#device.pass(COPY, 1, 0)
  }

  /** Throws a GraphicsError when the card was lost; nothing of a half-made picture gets out. */
  render(plan: FramePlan, sources: SourceFrames): RgbaPicture {
    const canvas = this.#canvasFor(plan)
    const { gl } = this.#device
    gl.bindFramebuffer(gl.FRAMEBUFFER, canvas.frame)
    gl.clearColor(0, 0, 0, plan.ground === 'black' ? 1 : 0)
    gl.clear(gl.COLOR_BUFFER_BIT)
    gl.blendFunc(gl.ONE, gl.ONE_MINUS_SRC_ALPHA)
    for (let i = 0; i < plan.draws.length; i += 1) {
      const draw = plan.draws[i]!
      const source = sources.get(draw.sourceId)
      if (source !== undefined) this.#put(draw, this.#treatments.treated(draw, source), canvas)
    }
    this.#device.run(this.#copy, this.#bytes!, [canvas], NO_VALUES)
    this.#device.read(this.#bytes!, this.#out)
    return { format: 'rgba', widthPx: plan.widthPx, heightPx: plan.heightPx, data: this.#out }
  }

  dispose(): void {
    if (this.#canvas !== null) this.#device.free(this.#canvas)
    if (this.#bytes !== null) this.#device.free(this.#bytes)
    this.#canvas = null
    this.#bytes = null
  }

  #put({ bounds, toSource, toFrame, frame, opacity }: Draw, picture: Surface, canvas: Surface): void {
    const v = this.#values
    v[0] = toSource.a
    v[1] = toSource.b
    v[2] = toSource.c
    v[3] = toSource.d
    v[4] = toSource.e
    v[5] = toSource.f
    v[6] = toFrame.a
    v[7] = toFrame.b
    v[8] = toFrame.c
    v[9] = toFrame.d
    v[10] = toFrame.e
    v[11] = toFrame.f
    v[12] = frame.width
    v[13] = frame.height
    v[14] = frame.cornerRadius
    v[15] = opacity
    // Treating draws into other surfaces, whole and without blending: both are on for this draw alone.
    const { gl } = this.#device
    gl.enable(gl.BLEND)
    gl.enable(gl.SCISSOR_TEST)
    gl.scissor(bounds.left, bounds.top, Math.max(0, bounds.right - bounds.left), Math.max(0, bounds.bottom - bounds.top))
    this.#device.run(this.#draw, canvas, [picture], v)
    gl.disable(gl.SCISSOR_TEST)
    gl.disable(gl.BLEND)
  }

  #canvasFor({ widthPx, heightPx }: FramePlan): Surface {
    if (this.#canvas !== null && this.#canvas.widthPx === widthPx && this.#canvas.heightPx === heightPx) return this.#canvas
    this.dispose()
    this.#canvas = this.#device.surface('half', widthPx, heightPx)
    this.#bytes = this.#device.surface('bytes', widthPx, heightPx)
    this.#out = new Uint8ClampedArray(widthPx * heightPx * 4)
    return this.#canvas
  }
}
