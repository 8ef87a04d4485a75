// core/matte/solve-edges.ts on the graphics card.
import { CELL_PX, RIM_WHITE, SAMPLE_STEP, SURE_BACK, SURE_FRONT, type EdgeLevels } from '../../../core/matte/solve-edges.ts'
import type { Surface } from '../device.ts'
import { LEVELLED } from './levelled.ts'
import { gatherGlsl } from './gather.ts'
import { NO_VALUES, type GlTools } from './gl-work.ts'
import { GlPullPush } from './pull-push.ts'

const CLASSES = `
int classAt(ivec2 place) {
  float alpha = texelFetch(t0, place, 0).a;
  return alpha >= ${SURE_FRONT} ? 2 : alpha <= ${SURE_BACK} ? 0 : 1;
}
bool isAll(ivec2 place, int kind) {
  for (int k = 0; k < 9; k += 1) if (classAt(insideOf(t0, place + ivec2(k % 3 - 1, k / 3 - 1))) != kind) return false;
  return true;
}`

const gatherOf = (kind: 0 | 2) => `${CLASSES}${gatherGlsl(CELL_PX, SAMPLE_STEP, `isAll(place, ${kind})`)}`

// VALUE: black, white, amount. t1: presenter, t2: backdrop. Without one of the sides there is nothing to solve by.
const SOLVE = `${CLASSES}${LEVELLED}
void main() {
  vec4 pixel = texelFetch(t0, here, 0);
  vec2 cell = (vec2(here) + 0.5) / ${CELL_PX.toFixed(1)} - 0.5;
  vec4 front = between(t1, cell);
  vec4 back = between(t2, cell);
  if (front.a == 0.0 || back.a == 0.0 || (classAt(here) == 2 ? isAll(here, 2) : isAll(here, 0))) {
    result = vec4(pixel.rgb, levelled(pixel.a, VALUE[0], VALUE[1]));
    return;
  }
  vec3 span = front.rgb - back.rgb;
  vec3 off = pixel.rgb - back.rgb;
  vec3 spanYcc = vec3(lumaOf(span), differencesOf(span));
  vec3 offYcc = vec3(lumaOf(off), differencesOf(off));
  float solved = dot(offYcc, spanYcc) / max(dot(spanYcc, spanYcc), 1e-4);
  if (classAt(here) == 2) solved /= ${RIM_WHITE.toFixed(6)};
  float alpha = levelled(mix(pixel.a, clip(solved), VALUE[2]), VALUE[0], VALUE[1]);
  result = vec4(clip((pixel.rgb - (1.0 - alpha) * back.rgb) / max(alpha, 0.1)), alpha);
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
    this.#gatherFront = device.pass(gatherOf(2), 1, 0)
    this.#gatherBack = device.pass(gatherOf(0), 1, 0)
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
