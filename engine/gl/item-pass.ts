// The shaders that put an item over what is under it: one for each kind of paint and each blend mode.
import { blendModeOf, type BlendName } from '../../core/blend/index.ts'
import type { Item, Paint } from '../../core/plan/frame-plan.ts'
import { COVERAGE_VALUES, coverageGlsl, coverageValues } from './coverage.ts'
import type { GlDevice, Pass } from './device.ts'

/** Most stops a gradient has on the graphics card. */
const MOST_STOPS = 16
const STOP_VALUES = 5
const GRADIENT_VALUES = 12
/** Where the coverage begins, after the paint. */
const COVER = GRADIENT_VALUES + MOST_STOPS * STOP_VALUES
export const ITEM_VALUES = COVER + COVERAGE_VALUES

// Each writes `vec4 paintAt(vec2 p)`, premultiplied.
const paints: Readonly<Record<Paint['kind'], string>> = {
  node: `vec4 paintAt(vec2 p) {
  vec2 size = max(vec2(1.0), vec2(length(vec2(VALUE[0], VALUE[2])), length(vec2(VALUE[1], VALUE[3]))));
  return within(t0, vec2(VALUE[0] * p.x + VALUE[2] * p.y + VALUE[4], VALUE[1] * p.x + VALUE[3] * p.y + VALUE[5]) - 0.5, size);
}`,
  plain: `vec4 paintAt(vec2 p) { return premultiplied(vec4(VALUE[0], VALUE[1], VALUE[2], VALUE[3])); }`,
  // 0–5 to the gradient, 6 kind, 7–10 its points, 11 stops; then the stops: place, red, green, blue, opacity.
  gradient: `vec4 stopAt(int i) {
  return premultiplied(vec4(VALUE[13 + i * 5], VALUE[14 + i * 5], VALUE[15 + i * 5], VALUE[16 + i * 5]));
}
vec4 paintAt(vec2 p) {
  vec2 at = vec2(VALUE[0] * p.x + VALUE[2] * p.y + VALUE[4], VALUE[1] * p.x + VALUE[3] * p.y + VALUE[5]);
  vec2 from = vec2(VALUE[7], VALUE[8]);
  vec2 along = vec2(VALUE[9], VALUE[10]) - from;
  float place = 1.0;
  if (VALUE[6] == 1.0) {
    if (VALUE[9] > 0.0) place = clamp(distance(at, from) / VALUE[9], 0.0, 1.0);
  } else if (dot(along, along) > 0.0) place = clamp(dot(at - from, along) / dot(along, along), 0.0, 1.0);
  int count = int(VALUE[11]);
  if (place < VALUE[12]) return stopAt(0);
  for (int i = 1; i < ${MOST_STOPS}; i += 1) {
    if (i >= count) break;
    float next = VALUE[12 + i * 5];
    if (place < next) return mix(stopAt(i - 1), stopAt(i), (place - VALUE[7 + i * 5]) / (next - VALUE[7 + i * 5]));
  }
  return stopAt(count - 1);
}`,
}

/** With the fixed function's source-over, the rest is blended by the shader, which reads what is under it from t1. */
function composing(blend: BlendName): string {
  if (blend === 'normal') return 'void main() { vec2 p = vec2(here) + 0.5; result = paintAt(p) * covered(p); }'
  const mixing =
    blend === 'plus-lighter'
      ? 'result = min(vec4(1.0), under + over);'
      : `vec3 mixed = BLEND(clamp(straight(under).rgb, 0.0, 1.0), clamp(straight(paint).rgb, 0.0, 1.0));
  result = vec4(over.rgb * (1.0 - under.a) + under.rgb * (1.0 - over.a) + over.a * under.a * mixed, over.a + under.a - over.a * under.a);`
  return `${blend === 'plus-lighter' ? '' : blendModeOf(blend).glsl}
void main() {
  vec2 p = vec2(here) + 0.5;
  vec4 under = texelFetch(t1, here, 0);
  vec4 paint = paintAt(p);
  vec4 over = paint * covered(p);
  ${mixing}
}`
}

/** The pass for an item's paint and blend. */
export function itemPass(device: GlDevice, { paint, blend }: Item): Pass {
  return device.pass(`#define COVER ${COVER}\n${coverageGlsl}\n${paints[paint.kind]}\n${composing(blend)}`, 3, ITEM_VALUES)
}

/** Writes what the pass of an item reads. Throws a RangeError for a gradient of too many stops. */
export function itemValues(item: Item, values: Float32Array): void {
  const { paint } = item
  if (paint.kind === 'plain') values.set([...paint.colour, paint.opacity])
  else {
    const { a, b, c, d, e, f } = paint.kind === 'node' ? paint.toNode : paint.toGradient
    values.set([a, b, c, d, e, f])
  }
  if (paint.kind === 'gradient') {
    const { gradient } = paint
    const { stops } = gradient
    if (stops.length > MOST_STOPS) throw new RangeError(`a gradient has at most ${MOST_STOPS} stops on the graphics card, this one ${stops.length}`)
    if (gradient.kind === 'linear') values.set([0, gradient.fromX, gradient.fromY, gradient.toX, gradient.toY], 6)
    else values.set([1, gradient.centreX, gradient.centreY, gradient.radius, 0], 6)
    values[11] = stops.length
    stops.forEach(({ at, colour, opacity }, i) => values.set([at, ...colour, opacity], GRADIENT_VALUES + i * STOP_VALUES))
  }
  coverageValues(item, values, COVER)
}
