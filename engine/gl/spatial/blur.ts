import { gaussianTaps } from '../../../core/filter/gaussian.ts'
import type { Surface } from '../device.ts'
import type { GlTools } from './gl-work.ts'

/** A Gaussian across and down, all channels, edges repeated. */
export class GlBlur {
  readonly #tools: GlTools
  readonly #across: Surface
  readonly #down: Surface
  readonly #acrossValues: Float32Array
  readonly #downValues: Float32Array
  readonly #pass

  /** `sigma` in pixels of surfaces `widthPx` × `heightPx`. */
  constructor(tools: GlTools, sigma: number, widthPx = tools.widthPx, heightPx = tools.heightPx) {
    this.#tools = tools
    const taps = gaussianTaps(sigma)
    this.#across = tools.surface('half', widthPx, heightPx)
    this.#down = tools.surface('half', widthPx, heightPx)
    this.#acrossValues = Float32Array.from([1, 0, ...taps])
    this.#downValues = Float32Array.from([0, 1, ...taps])
    this.#pass = tools.device.pass(blurGlsl(taps.length), 1, taps.length + 2)
  }

  /** The blurred picture; valid until the next run. */
  run(source: Surface): Surface {
    const { device } = this.#tools
    device.run(this.#pass, this.#across, [source], this.#acrossValues)
    device.run(this.#pass, this.#down, [this.#across], this.#downValues)
    return this.#down
  }
}

function blurGlsl(count: number): string {
  const radius = (count - 1) / 2
  return `
void main() {
  ivec2 direction = ivec2(VALUE[0], VALUE[1]);
  vec4 sum = vec4(0.0);
  for (int k = 0; k < ${count}; k += 1) sum += VALUE[k + 2] * at(t0, here + (k - ${radius}) * direction);
  result = sum;
}`
}
