// core/matte/solve-edges.ts on the graphics card.
import { ASIDE, CELL_PX, RIM_WHITE, SAMPLE_STEP, SPAN_FROM, SPAN_FULL, type EdgeLevels } from '../../../core/matte/solve-edges.ts'
import type { Surface } from '../device.ts'
import { LEVELLED } from './levelled.ts'
import { gatherGlsl, SURENESS } from './gather.ts'
import { NO_VALUES, type GlTools } from './gl-work.ts'
import { GlPullPush } from './pull-push.ts'

const SURELY = `${SURENESS}
float surelyFront(ivec2 place) {
  float least = 1.0;
  for (int k = 0; k < 9; k += 1) least = min(least, at(t0, place + ivec2(k % 3 - 1, k / 3 - 1)).a);
  return sureness(least);
}
float surelyBack(ivec2 place) {
  float most = 0.0;
  for (int k = 0; k < 9; k += 1) most = max(most, at(t0, place + ivec2(k % 3 - 1, k / 3 - 1)).a);
  return sureness(1.0 - most);
}`

const gatherOf = (side: 'Front' | 'Back') => `${SURELY}${gatherGlsl(CELL_PX, SAMPLE_STEP, `sampleWeight(surely${side}(place))`)}`

// VALUE: black, white, amount. t1: presenter, t2: backdrop, their alpha how far each is trusted.
const SOLVE = `${SURELY}${LEVELLED}
void main() {
  vec4 pixel = texelFetch(t0, here, 0);
  vec2 cell = (vec2(here) + 0.5) / ${CELL_PX.toFixed(1)} - 0.5;
  vec4 front = between(t1, cell);
  vec4 back = between(t2, cell);
  float unsure = front.a * back.a * (1.0 - max(surelyFront(here), surelyBack(here)));
  if (unsure == 0.0) {
    result = vec4(pixel.rgb, levelled(pixel.a, VALUE[0], VALUE[1]));
    return;
  }
  vec3 span = front.rgb - back.rgb;
  vec3 off = pixel.rgb - back.rgb;
  vec3 spanYcc = vec3(lumaOf(span), differencesOf(span));
  vec3 offYcc = vec3(lumaOf(off), differencesOf(off));
  float squared = dot(spanYcc, spanYcc);
  float size = max(squared, ${SPAN_FROM});
  float along = dot(offYcc, spanYcc) / size;
  float aside = (dot(offYcc, offYcc) - along * along * squared) / (size * ${ASIDE});
  float weight = unsure * clip((squared - ${SPAN_FROM}) / ${SPAN_FULL - SPAN_FROM}) / (1.0 + aside * aside);
  float solved = clip(along / (1.0 - sureness(pixel.a) * ${1 - RIM_WHITE}));
  float alpha = levelled(pixel.a + VALUE[2] * weight * (solved - pixel.a), VALUE[0], VALUE[1]);
  vec3 colour = clip((pixel.rgb - (1.0 - alpha) * back.rgb) / max(alpha, 0.1));
  result = vec4(mix(pixel.rgb, colour, weight), alpha);
}`

/** Solves soft edges from the colours on both sides. */
export class GlEdges {
  readonly #tools: GlTools
  readonly #front: GlPullPush
  readonly #back: GlPullPush
  readonly #out: Surface
  readonly #gatherFront
  readonly #gatherBack
  readonly #solve
  readonly #values: Float32Array

  constructor(tools: GlTools, { black, white, amount }: EdgeLevels) {
    this.#tools = tools
    const { device, widthPx, heightPx } = tools
    const columns = Math.ceil(widthPx / CELL_PX)
    const rows = Math.ceil(heightPx / CELL_PX)
    this.#front = new GlPullPush(tools, columns, rows)
    this.#back = new GlPullPush(tools, columns, rows)
    this.#out = tools.surface('half')
    this.#gatherFront = device.pass(gatherOf('Front'), 1, 0)
    this.#gatherBack = device.pass(gatherOf('Back'), 1, 0)
    this.#solve = device.pass(SOLVE, 3, 3)
    this.#values = Float32Array.of(black, white, amount)
  }

  run(source: Surface): Surface {
    const { device } = this.#tools
    device.run(this.#gatherFront, this.#front.sums, [source], NO_VALUES)
    device.run(this.#gatherBack, this.#back.sums, [source], NO_VALUES)
    device.run(this.#solve, this.#out, [source, this.#front.run(), this.#back.run()], this.#values)
    return this.#out
  }
}
