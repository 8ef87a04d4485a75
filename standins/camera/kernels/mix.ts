// AssemblyScript, compiled to mix.wasm by scripts/build-kernels.mjs. Puts the drawn presenter over
// the empty studio: straight RGBA over planar 4:2:0, BT.709 limited range, with sensor noise.
// `weights` holds nine floats: what red, green and blue add to luma, blue and red difference.

/** Luma of one row: C = α·F + (1 − α)·K, plus noise where the presenter is. `noiseMask` is length − 1. */
export function mixLumaRow(rgba: usize, luma: usize, count: i32, noise: usize, noiseAt: i32, noiseMask: i32, weights: usize): void {
  const weightRed = <i32>(load<f32>(weights) * <f32>65536)
  const weightGreen = <i32>(load<f32>(weights, 4) * <f32>65536)
  const weightBlue = <i32>(load<f32>(weights, 8) * <f32>65536)
  for (let i = 0; i < count; i += 1) {
    const pixel = load<u32>(rgba + (i << 2))
    const alpha = <i32>(pixel >>> 24)
    if (alpha == 0) continue
    const front = 1048576 + weightRed * <i32>(pixel & 255) + weightGreen * <i32>((pixel >>> 8) & 255) + weightBlue * <i32>((pixel >>> 16) & 255)
    const back = <i32>load<u8>(luma + i) << 16
    const mixed = alpha == 255 ? front : back + <i32>((<i64>(front - back) * alpha) / 255)
    const value = ((mixed + 32768) >> 16) + <i32>load<i8>(noise + ((noiseAt + i * 5) & noiseMask))
    store<u8>(luma + i, <u8>max(0, min(255, value)))
  }
}

/** Chroma of one pair of rows: the alpha-weighted mean of 2×2 pixels over the plate's code. */
export function mixChromaRow(upper: usize, lower: usize, cb: usize, cr: usize, count: i32, noise: usize, noiseAt: i32, noiseMask: i32, weights: usize): void {
  for (let i = 0; i < count; i += 1) {
    const a = load<u32>(upper + (i << 3))
    const b = load<u32>(upper + (i << 3), 4)
    const c = load<u32>(lower + (i << 3))
    const d = load<u32>(lower + (i << 3), 4)
    const alphaA = a >>> 24
    const alphaB = b >>> 24
    const alphaC = c >>> 24
    const alphaD = d >>> 24
    const alpha = alphaA + alphaB + alphaC + alphaD
    if (alpha == 0) continue
    const red = <f32>((a & 255) * alphaA + (b & 255) * alphaB + (c & 255) * alphaC + (d & 255) * alphaD)
    const green = <f32>(((a >>> 8) & 255) * alphaA + ((b >>> 8) & 255) * alphaB + ((c >>> 8) & 255) * alphaC + ((d >>> 8) & 255) * alphaD)
    const blue = <f32>(((a >>> 16) & 255) * alphaA + ((b >>> 16) & 255) * alphaB + ((c >>> 16) & 255) * alphaC + ((d >>> 16) & 255) * alphaD)
    const weight = <f32>1.0 / <f32>alpha
    const frontCb = <f32>128.0 + (load<f32>(weights, 12) * red + load<f32>(weights, 16) * green + load<f32>(weights, 20) * blue) * weight
    const frontCr = <f32>128.0 + (load<f32>(weights, 24) * red + load<f32>(weights, 28) * green + load<f32>(weights, 32) * blue) * weight
    const share = <f32>alpha / <f32>1020.0
    const wiggle = <i32>load<i8>(noise + ((noiseAt + i * 3) & noiseMask)) >> 1
    const backCb = <f32>load<u8>(cb + i)
    const backCr = <f32>load<u8>(cr + i)
    store<u8>(cb + i, <u8>(<i32>(backCb + (frontCb - backCb) * share + <f32>0.5) + wiggle))
    store<u8>(cr + i, <u8>(<i32>(backCr + (frontCr - backCr) * share + <f32>0.5) - wiggle))
  }
}
