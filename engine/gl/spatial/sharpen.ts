import type { SharpenWork } from '../../../core/steps/sharpen/index.ts'
import { GlBlur } from './blur.ts'
import { NO_VALUES, type MakeGlWork } from './gl-work.ts'

// Luma weighted by opacity, and opacity.
const WEIGH = `
void main() {
  vec4 pixel = texelFetch(t0, here, 0);
  result = vec4(lumaOf(pixel.rgb) * pixel.a, pixel.a, 0.0, 0.0);
}`

// VALUE: amount, threshold. t1: both blurred.
const SHARPEN = `
void main() {
  vec4 pixel = texelFetch(t0, here, 0);
  vec2 blurred = texelFetch(t1, here, 0).rg;
  float detail = lumaOf(pixel.rgb) * blurred.g - blurred.r;
  float beyond = max(0.0, abs(detail) - VALUE[1]);
  result = vec4(clip(pixel.rgb + VALUE[0] * sign(detail) * beyond), pixel.a);
}`

/** Unsharp mask on luma; see sharpenReference. */
export const glSharpen: MakeGlWork<SharpenWork> = (tools, { settings: { amount, radius, threshold } }) => {
  const { device, surface } = tools
  const blur = new GlBlur(tools, radius)
  const out = surface('half')
  const weighed = surface('half')
  const weigh = device.pass(WEIGH, 1, 0)
  const pass = device.pass(SHARPEN, 2, 2)
  const values = Float32Array.of(amount, threshold)
  return {
    run(source) {
      device.run(weigh, weighed, [source], NO_VALUES)
      device.run(pass, out, [source, blur.run(weighed)], values)
      return out
    },
  }
}
