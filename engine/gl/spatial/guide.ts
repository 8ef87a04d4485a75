// core/matte/person-mask.ts and guided-filter.ts on the graphics card.
import { GUIDE_EPSILON, GUIDE_RADIUS, MASK_HIGH, MASK_LOW } from '../../../core/matte/person-mask.ts'
import type { Plane } from '../../../core/picture/float-picture.ts'
import { EDGE_REACH } from '../../../core/steps/room/reference.ts'
import type { Surface } from '../device.ts'
import { NO_VALUES, type GlTools } from './gl-work.ts'

// Mean luma under each mask pixel, mask, luma², luma · mask. t0: picture, t1: mask. Which pixels are taken: smallLuma.
const MOMENTS = `
void main() {
  ivec2 size = textureSize(t0, 0);
  ivec2 cells = textureSize(t1, 0);
  ivec2 from = (here * size + cells - 1) / cells;
  ivec2 to = min(size, ((here + 1) * size + cells - 1) / cells);
  int step = size.x >= 2 * cells.x && size.y >= 2 * cells.y ? 2 : 1;
  from = (from + step - 1) / step * step;
  ivec2 inside = (2 * here + 1) * size / (2 * cells);
  if (from.x >= to.x) { from.x = inside.x; to.x = inside.x + 1; }
  if (from.y >= to.y) { from.y = inside.y; to.y = inside.y + 1; }
  float sum = 0.0;
  float count = 0.0;
  for (int y = from.y; y < to.y; y += step) {
    for (int x = from.x; x < to.x; x += step) {
      sum += lumaOf(texelFetch(t0, ivec2(x, y), 0).rgb);
      count += 1.0;
    }
  }
  float luma = sum / count;
  float mask = texelFetch(t1, here, 0).r;
  result = vec4(luma, mask, luma * luma, luma * mask);
}`

// Mean along one direction, cut off at the borders. VALUE: direction.
const BOX = `
void main() {
  ivec2 size = textureSize(t0, 0);
  ivec2 direction = ivec2(VALUE[0], VALUE[1]);
  vec4 sum = vec4(0.0);
  float count = 0.0;
  for (int k = -${GUIDE_RADIUS}; k <= ${GUIDE_RADIUS}; k += 1) {
    ivec2 place = here + k * direction;
    if (place.x < 0 || place.y < 0 || place.x >= size.x || place.y >= size.y) continue;
    sum += texelFetch(t0, place, 0);
    count += 1.0;
  }
  result = sum / count;
}`

const FIT = `
void main() {
  vec4 mean = texelFetch(t0, here, 0);
  float gain = (mean.w - mean.x * mean.y) / (mean.z - mean.x * mean.x + ${GUIDE_EPSILON});
  result = vec4(gain, mean.y - gain * mean.x, 0.0, 0.0);
}`

// VALUE: what the edge setting adds. t0: picture, t1: gain and offset.
const OPACITY = `
void main() {
  vec2 cells = vec2(textureSize(t1, 0));
  vec2 fit = between(t1, (vec2(here) + 0.5) * cells / vec2(textureSize(t0, 0)) - 0.5).rg;
  float guided = fit.x * lumaOf(texelFetch(t0, here, 0).rgb) + fit.y + VALUE[0];
  float share = clip((guided - ${MASK_LOW}) / ${(MASK_HIGH - MASK_LOW).toFixed(6)});
  result = vec4(share * share * (3.0 - 2.0 * share));
}`

/** The person's opacity at full size, held to the picture's luma. */
export class GlGuide {
  readonly #tools: GlTools
  readonly #opacity: Surface
  readonly #edge: Float32Array
  readonly #passes
  #mask: Surface | null = null
  #first: Surface | null = null
  #second: Surface | null = null
  #person: Plane | null = null

  constructor(tools: GlTools, edge: number) {
    const { device } = tools
    this.#tools = tools
    this.#opacity = tools.surface('half')
    this.#edge = Float32Array.of(edge * EDGE_REACH)
    this.#passes = { moments: device.pass(MOMENTS, 2, 0), box: device.pass(BOX, 1, 2), fit: device.pass(FIT, 1, 0), opacity: device.pass(OPACITY, 2, 1) }
  }

  /** Opacity in every channel; without a mask nothing counts as the person. */
  run(picture: Surface, person: Plane | null): Surface | null {
    if (person === null) return null
    // A mask comes some fifteen times a second; between two, the last one is held to the new picture's luma.
    if (person !== this.#person) this.#take(picture, person)
    this.#tools.device.run(this.#passes.opacity, this.#opacity, [picture, this.#first!], this.#edge)
    return this.#opacity
  }

  #take(picture: Surface, person: Plane): void {
    const { device, surface } = this.#tools
    if (this.#mask === null || this.#mask.widthPx !== person.widthPx || this.#mask.heightPx !== person.heightPx) {
      for (const old of [this.#mask, this.#first, this.#second]) if (old !== null) device.free(old)
      this.#mask = surface('floatOne', person.widthPx, person.heightPx)
      this.#first = surface('float', person.widthPx, person.heightPx)
      this.#second = surface('float', person.widthPx, person.heightPx)
    }
    const [first, second] = [this.#first!, this.#second!]
    const { moments, box, fit } = this.#passes
    device.upload(this.#mask, Float32Array.from(person.data))
    device.run(moments, first, [picture, this.#mask], NO_VALUES)
    device.run(box, second, [first], ACROSS)
    device.run(box, first, [second], DOWN)
    device.run(fit, second, [first], NO_VALUES)
    device.run(box, first, [second], ACROSS)
    device.run(box, second, [first], DOWN)
    this.#first = second
    this.#second = first
    this.#person = person
  }
}

const ACROSS = Float32Array.of(1, 0)
const DOWN = Float32Array.of(0, 1)
