// EdgeSpill of core/steps/spill/reference.ts on the graphics card.
import { parseHex } from '../../../core/colour/hex.ts'
import { luma709 } from '../../../core/colour/luma.ts'
import { CELL_PX, SAMPLE_STEP, SPILT, spillMeter, spillWedge } from '../../../core/steps/spill/reference.ts'
import { spillMeterGlsl } from '../../../core/steps/spill/glsl.ts'
import type { EdgeSpillWork } from '../../../core/steps/spill/index.ts'
import { placed } from '../point-pass.ts'
import { gatherGlsl, SURENESS } from './gather.ts'
import type { MakeGlWork } from './gl-work.ts'
import { GlPullPush } from './pull-push.ts'

const METER = placed(spillMeterGlsl, 'spill', 0, -1)

const GATHER = `${METER}${SURENESS}${gatherGlsl(CELL_PX, SAMPLE_STEP, `sampleWeight(sureness(pixel.a) * clip(1.0 - spill_in(pixel.rgb) / ${SPILT}))`)}`

// VALUE[5]: luma of the backdrop, or 0 where brightness need not stay.
const CLEAN = `${METER}
void main() {
  vec4 pixel = texelFetch(t0, here, 0);
  vec4 own = between(t1, (vec2(here) + 0.5) / ${CELL_PX.toFixed(1)} - 0.5);
  float share = VALUE[4] * own.a * spill_in(pixel.rgb);
  if (pixel.a == 0.0 || share == 0.0 || own.a == 0.0) { result = pixel; return; }
  vec3 light = VALUE[5] == 0.0 ? own.rgb : own.rgb * (VALUE[5] / max(0.02, lumaOf(own.rgb)));
  result = vec4(clip(pixel.rgb + share * (light - spill_key())), pixel.a);
}`

/** Spill replaced by the presenter's own colour near by. */
export const glEdgeSpill: MakeGlWork<EdgeSpillWork> = (tools, { settings }) => {
  const { device, widthPx, heightPx, surface } = tools
  if (spillMeter(settings) === null) return { run: (source) => source }
  const key = parseHex(settings.colour)
  const values = Float32Array.of(...key, spillWedge(settings.reach), settings.amount, settings.keepLuma === 'on' ? luma709(...key) : 0)
  const front = new GlPullPush(tools, Math.ceil(widthPx / CELL_PX), Math.ceil(heightPx / CELL_PX))
  const out = surface('half')
  const gather = device.pass(GATHER, 1, values.length)
  const clean = device.pass(CLEAN, 2, values.length)
  return {
    run(source) {
      device.run(gather, front.sums, [source], values)
      device.run(clean, out, [source, front.run()], values)
      return out
    },
  }
}
