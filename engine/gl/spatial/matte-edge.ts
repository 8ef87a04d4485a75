import { Islands } from '../../../core/matte/islands.ts'
import type { MatteEdgeWork } from '../../../core/steps/matte-edge/index.ts'
import type { Surface } from '../device.ts'
import { GlBlur } from './blur.ts'
import { GlEdges } from './edges.ts'
import { LEVELLED } from './levelled.ts'
import { NO_VALUES, type GlTools, type MakeGlWork } from './gl-work.ts'

const LEVELS = `${LEVELLED}
void main() {
  vec4 pixel = texelFetch(t0, here, 0);
  result = vec4(pixel.rgb, levelled(pixel.a, VALUE[0], VALUE[1]));
}`

const ALPHA_ONLY = `void main() { result = vec4(texelFetch(t0, here, 0).a); }`
const WITH_ALPHA = `void main() { result = vec4(texelFetch(t0, here, 0).rgb, texelFetch(t1, here, 0).r); }`

// VALUE: direction, whole pixels, 1 to grow or −1 to choke. Red is what reaches the whole size, green one pixel farther.
const SPREAD = `
void main() {
  ivec2 direction = ivec2(VALUE[0], VALUE[1]);
  int whole = int(VALUE[2]);
  vec2 best = texelFetch(t0, here, 0).rg * VALUE[3];
  for (int k = 1; k <= whole + 1; k += 1) {
    vec2 near = max(at(t0, here + k * direction).rg, at(t0, here - k * direction).rg);
    if (VALUE[3] < 0.0) near = -min(at(t0, here + k * direction).rg, at(t0, here - k * direction).rg);
    best = vec2(k <= whole ? max(best.r, near.r) : best.r, max(best.g, near.g));
  }
  result = vec4(best * VALUE[3], 0.0, 0.0);
}`

const MIX = `void main() { vec4 pair = texelFetch(t0, here, 0); result = vec4(mix(pair.r, pair.g, VALUE[0])); }`

/** Cleans the matte's edge; see core/steps/matte-edge/reference.ts for what is done in which order. */
export const glMatteEdge: MakeGlWork<MatteEdgeWork> = (tools, { settings }) => {
  const { device, surface } = tools
  const { black, white, detail, choke, feather, specks, holes } = settings
  const edges = detail > 0 ? new GlEdges(tools, { black, white, amount: detail }) : null
  const levels =
    edges === null && (black > 0 || white < 1) ? { out: surface('half'), pass: device.pass(LEVELS, 1, 2), values: Float32Array.of(black, white) } : null
  const islands = specks > 0 || holes > 0 ? new HostIslands(tools, specks, holes) : null
  const shape = choke !== 0 || feather > 0 ? new AlphaShape(tools, choke, feather) : null
  return {
    run(source) {
      let current = source
      if (edges !== null) current = edges.run(current)
      if (levels !== null) {
        device.run(levels.pass, levels.out, [current], levels.values)
        current = levels.out
      }
      if (islands !== null) current = islands.run(current)
      return shape === null ? current : shape.run(current)
    },
  }
}

/** Connected parts are found off the graphics card: the matte is read back, cleaned and brought again. */
class HostIslands {
  readonly #tools: GlTools
  readonly #islands: Islands
  readonly #bytes: Surface
  readonly #out: Surface
  readonly #pixels: Uint8Array
  readonly #specks: number
  readonly #holes: number
  readonly #pack
  readonly #withAlpha

  constructor(tools: GlTools, specks: number, holes: number) {
    const { device, widthPx, heightPx, surface } = tools
    this.#tools = tools
    this.#islands = new Islands(widthPx, heightPx)
    this.#bytes = surface('bytes')
    this.#out = surface('half')
    this.#pixels = new Uint8Array(widthPx * heightPx * 4)
    this.#specks = specks
    this.#holes = holes
    this.#pack = device.pass(ALPHA_ONLY, 1, 0)
    this.#withAlpha = device.pass(WITH_ALPHA, 2, 0)
  }

  run(source: Surface): Surface {
    const { device } = this.#tools
    device.run(this.#pack, this.#bytes, [source], NO_VALUES)
    device.read(this.#bytes, this.#pixels)
    this.#islands.clean(this.#pixels, 0, 4, 255, this.#specks, this.#holes)
    device.upload(this.#bytes, this.#pixels)
    device.run(this.#withAlpha, this.#out, [source, this.#bytes], NO_VALUES)
    return this.#out
  }
}

/** Choke and feather. */
class AlphaShape {
  readonly #tools: GlTools
  readonly #first: Surface
  readonly #second: Surface
  readonly #out: Surface
  readonly #blur: GlBlur | null
  readonly #across: Float32Array
  readonly #down: Float32Array
  readonly #share: Float32Array
  readonly #choke: number
  readonly #alphaOnly
  readonly #spread
  readonly #mix
  readonly #withAlpha

  constructor(tools: GlTools, choke: number, feather: number) {
    const { device, surface } = tools
    this.#tools = tools
    this.#first = surface('half')
    this.#second = surface('half')
    this.#out = surface('half')
    this.#choke = choke
    this.#blur = feather > 0 ? new GlBlur(tools, feather) : null
    const whole = Math.floor(Math.abs(choke))
    this.#across = Float32Array.of(1, 0, whole, Math.sign(choke))
    this.#down = Float32Array.of(0, 1, whole, Math.sign(choke))
    this.#share = Float32Array.of(Math.abs(choke) - whole)
    this.#alphaOnly = device.pass(ALPHA_ONLY, 1, 0)
    this.#spread = device.pass(SPREAD, 1, 4)
    this.#mix = device.pass(MIX, 1, 1)
    this.#withAlpha = device.pass(WITH_ALPHA, 2, 0)
  }

  run(source: Surface): Surface {
    const { device } = this.#tools
    device.run(this.#alphaOnly, this.#first, [source], NO_VALUES)
    let matte = this.#first
    if (this.#choke !== 0) {
      device.run(this.#spread, this.#second, [this.#first], this.#across)
      device.run(this.#spread, this.#first, [this.#second], this.#down)
      device.run(this.#mix, this.#second, [this.#first], this.#share)
      matte = this.#second
    }
    if (this.#blur !== null) matte = this.#blur.run(matte)
    device.run(this.#withAlpha, this.#out, [source, matte], NO_VALUES)
    return this.#out
  }
}
