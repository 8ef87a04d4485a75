import type { FramingWork } from '../../../core/steps/framing/index.ts'
import type { MakeGlWork } from './gl-work.ts'

const MOVE = `
void main() {
  vec2 p = vec2(here) + 0.5;
  vec2 place = vec2(VALUE[0] * p.x + VALUE[2] * p.y + VALUE[4], VALUE[1] * p.x + VALUE[3] * p.y + VALUE[5]) - 0.5;
  vec2 last = vec2(textureSize(t0, 0) - 1);
  place = clamp(place, vec2(0.0), last);
  ivec2 below = ivec2(floor(place));
  ivec2 above = min(below + 1, ivec2(last));
  vec2 share = place - vec2(below);
  vec4 upper = mix(premultiplied(texelFetch(t0, below, 0)), premultiplied(texelFetch(t0, ivec2(above.x, below.y), 0)), share.x);
  vec4 lower = mix(premultiplied(texelFetch(t0, ivec2(below.x, above.y), 0)), premultiplied(texelFetch(t0, above, 0)), share.x);
  result = straight(mix(upper, lower, share.y));
}`

/** Moves the picture; see frameReference. */
export const glFraming: MakeGlWork<FramingWork> = ({ device, surface }, { settings: { toSource } }) => {
  const out = surface('half')
  const pass = device.pass(MOVE, 1, 6)
  const values = Float32Array.of(toSource.a, toSource.b, toSource.c, toSource.d, toSource.e, toSource.f)
  return {
    run(source) {
      device.run(pass, out, [source], values)
      return out
    },
  }
}
