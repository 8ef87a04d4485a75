// core/matte/pull-push.ts on the graphics card.
import { FULL_KNOWLEDGE, FULL_TRUST } from '../../../core/matte/pull-push.ts'
import type { Surface } from '../device.ts'
import { NO_VALUES, type GlTools } from './gl-work.ts'

const PULL = `
void main() {
  vec4 sum = vec4(0.0);
  ivec2 size = textureSize(t0, 0);
  for (int k = 0; k < 4; k += 1) {
    ivec2 place = here * 2 + ivec2(k & 1, k >> 1);
    if (place.x < size.x && place.y < size.y) sum += texelFetch(t0, place, 0);
  }
  result = sum;
}`

// Alpha: how far all that is known is trusted, 0 where nothing is known anywhere.
const TOP = `
void main() {
  vec4 sum = texelFetch(t0, here, 0);
  result = sum.a == 0.0 ? vec4(0.0) : vec4(sum.rgb / sum.a, min(1.0, sum.a / ${FULL_KNOWLEDGE}.0));
}`

const PUSH = `
void main() {
  vec4 sum = texelFetch(t0, here, 0);
  vec4 guess = between(t1, (vec2(here) + 0.5) / 2.0 - 0.5);
  float trust = min(1.0, sum.a / ${FULL_TRUST}.0);
  vec3 own = sum.a > 0.0 ? sum.rgb / sum.a : vec3(0.0);
  result = vec4(mix(guess.rgb, own, trust), guess.a);
}`

export class GlPullPush {
  /** Where sums are to be written: red, green, blue, count. */
  readonly sums: Surface
  readonly #tools: GlTools
  readonly #levels: { readonly sums: Surface; readonly colours: Surface }[] = []
  readonly #pull
  readonly #top
  readonly #push

  constructor(tools: GlTools, columns: number, rows: number) {
    this.#tools = tools
    const { device } = tools
    this.#pull = device.pass(PULL, 1, 0)
    this.#top = device.pass(TOP, 1, 0)
    this.#push = device.pass(PUSH, 2, 0)
    for (let width = columns, height = rows; ; width = (width + 1) >> 1, height = (height + 1) >> 1) {
      this.#levels.push({ sums: tools.surface('float', width, height), colours: tools.surface('float', width, height) })
      if (width === 1 && height === 1) break
    }
    this.sums = this.#levels[0]!.sums
  }

  /** The spread colours of what `sums` holds; alpha: how far they are trusted, 0 where nothing was known at all. */
  run(): Surface {
    const { device } = this.#tools
    const levels = this.#levels
    for (let i = 1; i < levels.length; i += 1) device.run(this.#pull, levels[i]!.sums, [levels[i - 1]!.sums], NO_VALUES)
    const top = levels.length - 1
    device.run(this.#top, levels[top]!.colours, [levels[top]!.sums], NO_VALUES)
    for (let i = top - 1; i >= 0; i -= 1) device.run(this.#push, levels[i]!.colours, [levels[i]!.sums, levels[i + 1]!.colours], NO_VALUES)
    return levels[0]!.colours
  }
}
