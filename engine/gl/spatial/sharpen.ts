import type { SharpenWork } from '../../../core/steps/sharpen/index.ts'
import { GlBlur } from './blur.ts'
import type { MakeGlWork } from './gl-work.ts'

// VALUE: amount, threshold.
const SHARPEN = `
void main() {
  vec4 pixel = texelFetch(t0, here, 0);
  float detail = lumaOf(pixel.rgb) - lumaOf(texelFetch(t1, here, 0).rgb);
  float beyond = max(0.0, abs(detail) - VALUE[1]);
  result = vec4(clip(pixel.rgb + VALUE[0] * sign(detail) * beyond), pixel.a);
}`

/** Unsharp mask on luma; see sharpenReference. */
export const glSharpen: MakeGlWork<SharpenWork> = (tools, { settings: { amount, radius, threshold } }) => {
  const { device, surface } = tools
  const blur = new GlBlur(tools, radius)
  const out = surface('half')
  const pass = device.pass(SHARPEN, 2, 2)
  const values = Float32Array.of(amount, threshold)
  return {
    run(source) {
      device.run(pass, out, [source, blur.run(source)], values)
      return out
    },
  }
}
