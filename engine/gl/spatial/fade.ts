import type { FadeWork } from '../../../core/steps/crop/index.ts'
import { NO_VALUES, type MakeGlWork } from './gl-work.ts'

const FADE = `
void main() {
  vec4 pixel = texelFetch(t0, here, 0);
  result = vec4(pixel.rgb, pixel.a * texelFetch(t1, ivec2(here.x, 0), 0).r * texelFetch(t2, ivec2(here.y, 0), 0).r);
}`

/** Fades the picture out towards the edges of a crop. */
export const glFade: MakeGlWork<FadeWork> = ({ device, widthPx, heightPx, surface }, { settings }) => {
  const out = surface('half')
  const across = surface('floatOne', widthPx, 1)
  const down = surface('floatOne', heightPx, 1)
  device.upload(across, Float32Array.from(settings.across))
  device.upload(down, Float32Array.from(settings.down))
  const pass = device.pass(FADE, 3, 0)
  return {
    run(source) {
      device.run(pass, out, [source, across, down], NO_VALUES)
      return out
    },
  }
}
