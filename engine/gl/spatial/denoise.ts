import type { DenoiseWork } from '../../../core/steps/denoise/index.ts'
import type { Surface } from '../device.ts'
import type { MakeGlWork } from './gl-work.ts'

// VALUE: limit, share of time, share of space, whether there is a frame before.
const DENOISE = `
vec3 steadyAt(ivec2 place) {
  vec3 value = texelFetch(t0, place, 0).rgb;
  if (VALUE[3] == 0.0) return value;
  vec3 difference = texelFetch(t1, place, 0).rgb - value;
  return value + difference * VALUE[1] * clip((VALUE[0] - abs(difference)) / (VALUE[0] / 2.0));
}
void main() {
  float alpha = texelFetch(t0, here, 0).a;
  vec3 value = steadyAt(here);
  if (VALUE[2] == 0.0) { result = vec4(value, alpha); return; }
  vec3 sum = vec3(0.0);
  for (int k = 0; k < 4; k += 1) {
    ivec2 offset = k == 0 ? ivec2(0, -1) : k == 1 ? ivec2(0, 1) : k == 2 ? ivec2(-1, 0) : ivec2(1, 0);
    vec3 other = steadyAt(insideOf(t0, here + offset));
    sum += mix(value, other, lessThanEqual(abs(other - value), vec3(VALUE[0])));
  }
  result = vec4(value + VALUE[2] * (sum / 4.0 - value), alpha);
}`

/** Calms grain; see denoiseReference. */
export const glDenoise: MakeGlWork<DenoiseWork> = ({ device, surface }, { settings: { time, space, noise } }) => {
  let out = surface('half')
  let before = surface('half')
  let hasBefore = false
  const pass = device.pass(DENOISE, 2, 4)
  const values = Float32Array.of((2 * noise) / 255, time, space, 0)
  return {
    run(source): Surface {
      ;[out, before] = [before, out]
      values[3] = hasBefore && time > 0 ? 1 : 0
      device.run(pass, out, [source, before], values)
      hasBefore = true
      return out
    },
  }
}
