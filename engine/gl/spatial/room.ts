// core/steps/room/reference.ts on the graphics card.
import type { Plane } from '../../../core/picture/float-picture.ts'
import { blurHalvings, blurSigma, LEAST_ROOM, stretched } from '../../../core/steps/room/reference.ts'
import type { RoomWork } from '../../../core/steps/room/index.ts'
import type { Surface } from '../device.ts'
import { halveGlsl } from '../halve.ts'
import { GlBlur } from './blur.ts'
import { NO_VALUES, type GlTools, type GlWork, type MakeGlWork } from './gl-work.ts'
import { GlGuide } from './guide.ts'

// t0: picture, t1: opacity of the person.
const HIDE = `void main() { vec4 pixel = texelFetch(t0, here, 0); result = vec4(pixel.rgb, pixel.a * texelFetch(t1, here, 0).r); }`

// t2: what takes the room's place.
const REPLACE = `
void main() {
  vec4 pixel = texelFetch(t0, here, 0);
  result = vec4(mix(texelFetch(t2, here, 0).rgb, pixel.rgb, texelFetch(t1, here, 0).r), pixel.a);
}`

// The room, weighted by how surely it is the room.
const WEIGH = `
void main() {
  float weight = 1.0 - texelFetch(t1, here, 0).r;
  result = vec4(texelFetch(t0, here, 0).rgb * weight, weight);
}`

// t2: the blurred room.
const SOFTEN = `
void main() {
  vec4 pixel = texelFetch(t0, here, 0);
  vec4 room = between(t2, (vec2(here) + 0.5) * vec2(textureSize(t2, 0)) / vec2(textureSize(t0, 0)) - 0.5);
  vec3 colour = room.a < ${LEAST_ROOM} ? pixel.rgb : room.rgb / room.a;
  result = vec4(mix(colour, pixel.rgb, texelFetch(t1, here, 0).r), pixel.a);
}`

/** Softens, hides or replaces the room. */
export const glRoom: MakeGlWork<RoomWork> = (tools, work) => new GlRoom(tools, work)

class GlRoom implements GlWork {
  readonly #tools: GlTools
  readonly #guide: GlGuide
  readonly #nobody: Surface
  readonly #out: Surface
  readonly #pass
  readonly #instead: Surface | null
  readonly #softener: Softener | null

  constructor(tools: GlTools, { settings }: RoomWork) {
    const { device, widthPx, heightPx, surface } = tools
    this.#tools = tools
    this.#guide = new GlGuide(tools, settings.edge)
    this.#nobody = surface('byteOne')
    device.upload(this.#nobody, new Uint8Array(widthPx * heightPx))
    this.#out = surface('half')
    this.#instead = settings.effect === 'replaced' ? surface('bytes') : null
    if (this.#instead !== null)
      device.upload(
        this.#instead,
        Uint8Array.from(stretched(settings.picture, widthPx, heightPx).data, (value) => Math.round(value * 255)),
      )
    this.#softener = settings.effect === 'softened' ? new Softener(tools, blurSigma(settings.softness, heightPx)) : null
    this.#pass = settings.effect === 'hidden' ? device.pass(HIDE, 2, 0) : device.pass(settings.effect === 'replaced' ? REPLACE : SOFTEN, 3, 0)
  }

  run(source: Surface, person: Plane | null): Surface {
    const opacity = this.#guide.run(source, person) ?? this.#nobody
    const instead = this.#softener?.run(source, opacity) ?? this.#instead
    this.#tools.device.run(this.#pass, this.#out, instead === null ? [source, opacity] : [source, opacity, instead], NO_VALUES)
    return this.#out
  }
}

/** The room blurred at a reduced size. */
class Softener {
  readonly #tools: GlTools
  readonly #levels: Surface[]
  readonly #blur: GlBlur
  readonly #weigh
  readonly #halve

  constructor(tools: GlTools, sigma: number) {
    const { device, surface } = tools
    this.#tools = tools
    let { widthPx, heightPx } = tools
    this.#levels = [surface('half')]
    const halvings = blurHalvings(sigma)
    for (let i = 0; i < halvings; i += 1) {
      widthPx = Math.max(1, widthPx >> 1)
      heightPx = Math.max(1, heightPx >> 1)
      this.#levels.push(surface('half', widthPx, heightPx))
    }
    this.#blur = new GlBlur(tools, Math.max(0.3, sigma / 2 ** halvings), widthPx, heightPx)
    this.#weigh = device.pass(WEIGH, 2, 0)
    this.#halve = device.pass(halveGlsl, 1, 0)
  }

  run(source: Surface, opacity: Surface): Surface {
    const { device } = this.#tools
    device.run(this.#weigh, this.#levels[0]!, [source, opacity], NO_VALUES)
    for (let i = 1; i < this.#levels.length; i += 1) device.run(this.#halve, this.#levels[i]!, [this.#levels[i - 1]!], NO_VALUES)
    return this.#blur.run(this.#levels.at(-1)!)
  }
}
