import type { FieldKeyWork } from '../../../core/steps/chroma-key/index.ts'
import { placed } from '../point-pass.ts'
import type { MakeGlWork } from './gl-work.ts'

/** The key on uneven cloth; see keyOnField. */
export const glFieldKey: MakeGlWork<FieldKeyWork> = ({ device, surface }, { settings: { shader, field } }) => {
  const out = surface('half')
  const gains = surface('floatOne', field.columns, field.rows)
  device.upload(gains, field.gains)
  const values = Float32Array.of(field.cellPx, ...shader.values)
  const body = `${placed(shader.source, 'key', 1, -1)}
void main() {
  float gain = between(t1, (vec2(here) + 0.5) / VALUE[0] - 0.5).r;
  result = key_onField(texelFetch(t0, here, 0), gain);
}`
  const pass = device.pass(body, 2, values.length)
  return {
    run(source) {
      device.run(pass, out, [source, gains], values)
      return out
    },
  }
}
