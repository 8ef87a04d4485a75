// AssemblyScript, compiled into kernels.wasm beside kernels.ts. Loops of work that looks at a pixel's place or
// neighbours. Packed RGBA, straight alpha unless a name says otherwise, red in the low byte, sRGB-encoded.

const CLEAR: u32 = 1

// @ts-ignore: decorator
@inline
function byteOf(value: f32): u32 {
  return <u32>(<i32>(min<f32>(255, max<f32>(0, value)) + 0.5))
}

// @ts-ignore: decorator
@inline
function scaled(value: u32, weight: u32): u32 {
  const product = value * weight + 128
  return (product + (product >>> 8)) >>> 8
}

/** A table of straight entries applied to `count` straight pixels; their own alpha thins that of the entry. Returns misses. */
export function treatStraightRow(table: usize, source: usize, count: i32, line: usize, missing: usize): i32 {
  let misses = 0
  for (let i = 0; i < count; i += 1) {
    const pixel = load<u32>(source + (i << 2))
    const code = ((pixel & 255) << 16) | (pixel & 0xff00) | ((pixel >>> 16) & 255)
    const entry = load<u32>(table + (<usize>code << 2))
    if (entry == 0) {
      store<u32>(missing + (misses << 2), code)
      misses += 1
    }
    const alpha = pixel >>> 24
    store<u32>(line + (i << 2), alpha == 255 ? entry : (entry & 0xffffff) | (scaled(entry >>> 24, alpha) << 24))
  }
  return misses
}

/** Colours multiplied by alpha; what is clear becomes nothing. `out` may be `source`. */
export function premultiplyRow(source: usize, out: usize, count: i32): void {
  for (let i = 0; i < count; i += 1) {
    const pixel = load<u32>(source + (i << 2))
    const alpha = pixel >>> 24
    if (alpha == 255) store<u32>(out + (i << 2), pixel)
    else if (alpha == 0) store<u32>(out + (i << 2), 0)
    else {
      let low = (pixel & 0xff00ff) * alpha + 0x800080
      low = ((low + ((low >>> 8) & 0xff00ff)) >>> 8) & 0xff00ff
      let green = ((pixel >>> 8) & 255) * alpha + 128
      green = ((green + (green >>> 8)) >>> 8) & 255
      store<u32>(out + (i << 2), low | (green << 8) | (alpha << 24))
    }
  }
}

/** The inverse of premultiplyRow, as near as bytes allow. */
export function unpremultiplyRow(source: usize, out: usize, count: i32): void {
  for (let i = 0; i < count; i += 1) {
    const pixel = load<u32>(source + (i << 2))
    const alpha = pixel >>> 24
    if (alpha == 255) store<u32>(out + (i << 2), pixel)
    else if (alpha == 0) store<u32>(out + (i << 2), CLEAR)
    else {
      const half = alpha >>> 1
      const red = min<u32>(255, ((pixel & 255) * 255 + half) / alpha)
      const green = min<u32>(255, (((pixel >>> 8) & 255) * 255 + half) / alpha)
      const blue = min<u32>(255, (((pixel >>> 16) & 255) * 255 + half) / alpha)
      store<u32>(out + (i << 2), red | (green << 8) | (blue << 16) | (alpha << 24))
    }
  }
}

/** Alpha × across[i] × down. `across` holds 32-bit floats. */
export function fadeRow(pixels: usize, count: i32, across: usize, down: f32): void {
  for (let i = 0; i < count; i += 1) {
    const pixel = load<u32>(pixels + (i << 2))
    const alpha = byteOf(<f32>(pixel >>> 24) * load<f32>(across + (i << 2)) * down)
    store<u32>(pixels + (i << 2), (pixel & 0xffffff) | (alpha << 24))
  }
}

/**
 * Keys a row on an uneven cloth (core/steps/chroma-key/field.ts). `upper` and `lower` are rows of gains, mixed by
 * `share`; `cells` and `shares` place each pixel between two of them.
 */
export function fieldKeyRow(
  pixels: usize, count: i32, table: usize, missing: usize,
  upper: usize, lower: usize, share: f32, cells: usize, shares: usize, lastCell: i32,
): i32 {
  let misses = 0
  for (let i = 0; i < count; i += 1) {
    const at = pixels + (i << 2)
    const pixel = load<u32>(at)
    const left = load<i32>(cells + (i << 2))
    const right = min(lastCell, left + 1)
    const gainLeft = load<f32>(upper + (left << 2)) * (<f32>1 - share) + load<f32>(lower + (left << 2)) * share
    const gainRight = load<f32>(upper + (right << 2)) * (<f32>1 - share) + load<f32>(lower + (right << 2)) * share
    const place = load<f32>(shares + (i << 2))
    const gain = gainLeft * (<f32>1 - place) + gainRight * place
    const red = byteOf(<f32>(pixel & 255) * gain)
    const green = byteOf(<f32>((pixel >>> 8) & 255) * gain)
    const blue = byteOf(<f32>((pixel >>> 16) & 255) * gain)
    const entry = load<u32>(table + (<usize>((red << 16) | (green << 8) | blue) << 2))
    if (entry == 0) {
      store<u32>(missing + (misses << 2), (red << 16) | (green << 8) | blue)
      misses += 1
      continue
    }
    const alpha = scaled(entry >>> 24, pixel >>> 24)
    const even = red | (green << 8) | (blue << 16)
    if (((entry ^ even) & 0xffffff) == 0) {
      store<u32>(at, (pixel & 0xffffff) | (alpha << 24))
      continue
    }
    const back = <f32>1 / gain
    const newRed = byteOf(<f32>(pixel & 255) + <f32>(<i32>(entry & 255) - <i32>red) * back)
    const newGreen = byteOf(<f32>((pixel >>> 8) & 255) + <f32>(<i32>((entry >>> 8) & 255) - <i32>green) * back)
    const newBlue = byteOf(<f32>((pixel >>> 16) & 255) + <f32>(<i32>((entry >>> 16) & 255) - <i32>blue) * back)
    store<u32>(at, newRed | (newGreen << 8) | (newBlue << 16) | (alpha << 24))
  }
  return misses
}

/** Codes that fieldKeyRow would look up, listed where the table has no entry; changes nothing. */
export function fieldCodesRow(
  pixels: usize, count: i32, table: usize, missing: usize,
  upper: usize, lower: usize, share: f32, cells: usize, shares: usize, lastCell: i32,
): i32 {
  let misses = 0
  for (let i = 0; i < count; i += 1) {
    const pixel = load<u32>(pixels + (i << 2))
    const left = load<i32>(cells + (i << 2))
    const right = min(lastCell, left + 1)
    const gainLeft = load<f32>(upper + (left << 2)) * (<f32>1 - share) + load<f32>(lower + (left << 2)) * share
    const gainRight = load<f32>(upper + (right << 2)) * (<f32>1 - share) + load<f32>(lower + (right << 2)) * share
    const place = load<f32>(shares + (i << 2))
    const gain = gainLeft * (<f32>1 - place) + gainRight * place
    const code = (byteOf(<f32>(pixel & 255) * gain) << 16) | (byteOf(<f32>((pixel >>> 8) & 255) * gain) << 8) | byteOf(<f32>((pixel >>> 16) & 255) * gain)
    if (load<u32>(table + (<usize>code << 2)) == 0) {
      store<u32>(missing + (misses << 2), code)
      misses += 1
    }
  }
  return misses
}

/**
 * One step towards the frame before (core/steps/denoise/cpu.ts), in place: `time` of 256, `noise` in codes.
 * `bytes` is a multiple of 16 or runs into slack.
 */
export function steadyRow(pixels: usize, before: usize, bytes: i32, time: i32, noise: i32): void {
  const limit = i8x16.splat(<i8>min(255, 2 * noise))
  const full = i8x16.splat(<i8>min(255, noise))
  // w = time · min(noise, max(0, limit − |d|)) / noise, in 1/256.
  const perCode = i16x8.splat(<i16>((time << 6) / noise))
  const colours = i32x4.splat(0xffffff)
  for (let i = 0; i < bytes; i += 16) {
    const value = v128.load(pixels + i)
    const old = v128.load(before + i)
    const difference = v128.or(i8x16.sub_sat_u(value, old), i8x16.sub_sat_u(old, value))
    const room = i8x16.min_u(full, i8x16.sub_sat_u(limit, difference))
    const low = steadyHalf(i16x8.extend_low_i8x16_u(value), i16x8.extend_low_i8x16_u(old), i16x8.extend_low_i8x16_u(room), perCode)
    const high = steadyHalf(i16x8.extend_high_i8x16_u(value), i16x8.extend_high_i8x16_u(old), i16x8.extend_high_i8x16_u(room), perCode)
    v128.store(pixels + i, v128.bitselect(i8x16.narrow_i16x8_u(low, high), value, colours))
  }
}

// @ts-ignore: decorator
@inline
function steadyHalf(value: v128, old: v128, room: v128, perCode: v128): v128 {
  // room ≤ 24 codes and perCode ≤ 64·230/noise keep both products within 16 bits; the weight is of 2^14.
  const weight = i16x8.mul(room, perCode)
  const step = i16x8.q15mulr_sat_s(i16x8.shl(i16x8.sub(old, value), 4), i16x8.shl(weight, 1))
  return i16x8.add(value, i16x8.shr_s(i16x8.add(step, i16x8.splat(8)), 4))
}

/** Each colour drawn to its like neighbours: `space` of 256, `limit` in codes. Rows may be the same for missing ones. */
export function sigmaRow(above: usize, row: usize, below: usize, out: usize, count: i32, space: i32, limit: i32): void {
  const most = i8x16.splat(<i8>min(255, limit))
  const share = i16x8.splat(<i16>(space << 5))
  const colours = i32x4.splat(0xffffff)
  const bytes = count << 2
  for (let i = 0; i < bytes; i += 16) {
    const value = v128.load(row + i)
    const up = likeOf(value, v128.load(above + i), most)
    const down = likeOf(value, v128.load(below + i), most)
    const left = likeOf(value, i == 0 ? v128.shuffle<u8>(value, value, 0, 1, 2, 3, 0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11) : v128.load(row + i - 4), most)
    const right = likeOf(value, v128.load(row + i + 4), most)
    const low = sigmaHalf(
      i16x8.extend_low_i8x16_u(value), i16x8.extend_low_i8x16_u(up), i16x8.extend_low_i8x16_u(down),
      i16x8.extend_low_i8x16_u(left), i16x8.extend_low_i8x16_u(right), share,
    )
    const high = sigmaHalf(
      i16x8.extend_high_i8x16_u(value), i16x8.extend_high_i8x16_u(up), i16x8.extend_high_i8x16_u(down),
      i16x8.extend_high_i8x16_u(left), i16x8.extend_high_i8x16_u(right), share,
    )
    v128.store(out + i, v128.bitselect(i8x16.narrow_i16x8_u(low, high), value, colours))
  }
  // The last pixel has itself for a right neighbour, which the loop above could not know.
  const at = (count - 1) << 2
  const pixel = load<u32>(row + at)
  let fixed = pixel & 0xff000000
  for (let channel = 0; channel < 3; channel += 1) {
    const value = <i32>load<u8>(row + at + channel)
    const sum = near(value, load<u8>(above + at + channel), limit) + near(value, load<u8>(below + at + channel), limit) +
      near(value, load<u8>(row + max(0, at - 4) + channel), limit) + value
    const drawn = (value << 2) * 256 + space * (sum - (value << 2))
    fixed |= (<u32>((drawn + 512) >> 10) & 255) << (channel << 3)
  }
  store<u32>(out + at, fixed)
}

function near(value: i32, other: i32, limit: i32): i32 {
  return abs(other - value) <= limit ? other : value
}

// @ts-ignore: decorator
@inline
function likeOf(value: v128, other: v128, most: v128): v128 {
  const difference = v128.or(i8x16.sub_sat_u(value, other), i8x16.sub_sat_u(other, value))
  return v128.bitselect(other, value, i8x16.le_u(difference, most))
}

// @ts-ignore: decorator
@inline
function sigmaHalf(value: v128, up: v128, down: v128, left: v128, right: v128, share: v128): v128 {
  const sum = i16x8.add(i16x8.add(up, down), i16x8.add(left, right))
  const away = i16x8.sub(sum, i16x8.shl(value, 2))
  // away is four times the way to go; share is of 2^13: (away << 2) · share / 2^15 = away · space / 2^8 · 4 / 16.
  const step = i16x8.q15mulr_sat_s(i16x8.shl(away, 4), share)
  return i16x8.add(value, i16x8.shr_s(i16x8.add(step, i16x8.splat(8)), 4))
}

/** Luma of BT.709 in 1/128 of a code, as 16-bit. */
export function lumaRow(pixels: usize, out: usize, count: i32): void {
  for (let i = 0; i < count; i += 1) {
    const pixel = load<u32>(pixels + (i << 2))
    // 0.2126, 0.7152, 0.0722 of 2^14; the result is of 2^7.
    const luma = (3483 * (pixel & 255) + 11718 * ((pixel >>> 8) & 255) + 1183 * ((pixel >>> 16) & 255) + 64) >>> 7
    store<u16>(out + (i << 1), <u16>luma)
  }
}

/** Alpha in 1/128 of a code, as 16-bit. */
export function alphaToFine(pixels: usize, out: usize, count: i32): void {
  for (let i = 0; i < count; i += 1) store<u16>(out + (i << 1), <u16>(load<u8>(pixels + (i << 2), 3) << 7))
}

/** Sets alpha from 1/128 of a code, rounded. */
export function fineToAlpha(fine: usize, pixels: usize, count: i32): void {
  for (let i = 0; i < count; i += 1) store<u8>(pixels + (i << 2), <u8>min<u32>(255, (<u32>load<u16>(fine + (i << 1)) + 64) >>> 7), 3)
}

/** A row of 16-bit values convolved with `2·radius + 1` weights of 2^15; `row` must have `radius` values of room at both sides. */
export function blurAcross(row: usize, out: usize, count: i32, taps: usize, radius: i32): void {
  const first = load<u16>(row)
  const last = load<u16>(row + ((count - 1) << 1))
  for (let k = 1; k <= radius; k += 1) {
    store<u16>(row - (k << 1), first)
    store<u16>(row + ((count - 1 + k) << 1), last)
  }
  for (let i = 0; i < count; i += 8) {
    let sum = i16x8.splat(0)
    let at = row + ((i - radius) << 1)
    for (let k = 0; k <= 2 * radius; k += 1) {
      sum = i16x8.add(sum, i16x8.q15mulr_sat_s(v128.load(at), v128.load16_splat(taps + (k << 1))))
      at += 2
    }
    v128.store(out + (i << 1), sum)
  }
}

/** The same downwards: `rows` holds the addresses of 2·radius + 1 rows. */
export function blurDown(rows: usize, out: usize, count: i32, taps: usize, radius: i32): void {
  for (let i = 0; i < count; i += 8) {
    let sum = i16x8.splat(0)
    for (let k = 0; k <= 2 * radius; k += 1) {
      sum = i16x8.add(sum, i16x8.q15mulr_sat_s(v128.load(<usize>load<u32>(rows + (k << 2)) + (i << 1)), v128.load16_splat(taps + (k << 1))))
    }
    v128.store(out + (i << 1), sum)
  }
}

/** Adds amount · (|luma − blurred| − threshold, with its sign) to red, green and blue; values in 1/128 of a code, `amount` of 256. */
export function sharpenRow(pixels: usize, luma: usize, blurred: usize, out: usize, count: i32, amount: i32, threshold: i32): void {
  for (let i = 0; i < count; i += 1) {
    const pixel = load<u32>(pixels + (i << 2))
    const detail = <i32>load<u16>(luma + (i << 1)) - <i32>load<u16>(blurred + (i << 1))
    const beyond = abs(detail) - threshold
    if (beyond <= 0) {
      store<u32>(out + (i << 2), pixel)
      continue
    }
    const add = ((detail < 0 ? -beyond : beyond) * amount + 16384) >> 15
    const red = max(0, min(255, <i32>(pixel & 255) + add))
    const green = max(0, min(255, <i32>((pixel >>> 8) & 255) + add))
    const blue = max(0, min(255, <i32>((pixel >>> 16) & 255) + add))
    store<u32>(out + (i << 2), red | (green << 8) | (blue << 16) | (pixel & 0xff000000))
  }
}

/** Largest or smallest 16-bit value within ±radius of a row; `row` as in blurAcross. */
export function extremeAcross(row: usize, out: usize, count: i32, radius: i32, isLargest: bool): void {
  const first = load<u16>(row)
  const last = load<u16>(row + ((count - 1) << 1))
  for (let k = 1; k <= radius; k += 1) {
    store<u16>(row - (k << 1), first)
    store<u16>(row + ((count - 1 + k) << 1), last)
  }
  for (let i = 0; i < count; i += 8) {
    let best = v128.load(row + (i << 1))
    for (let k = -radius; k <= radius; k += 1) {
      const other = v128.load(row + ((i + k) << 1))
      best = isLargest ? i16x8.max_u(best, other) : i16x8.min_u(best, other)
    }
    v128.store(out + (i << 1), best)
  }
}

/** The same downwards. */
export function extremeDown(rows: usize, out: usize, count: i32, radius: i32, isLargest: bool): void {
  for (let i = 0; i < count; i += 8) {
    let best = v128.load(<usize>load<u32>(rows) + (i << 1))
    for (let k = 1; k <= 2 * radius; k += 1) {
      const other = v128.load(<usize>load<u32>(rows + (k << 2)) + (i << 1))
      best = isLargest ? i16x8.max_u(best, other) : i16x8.min_u(best, other)
    }
    v128.store(out + (i << 1), best)
  }
}

/** a + (b − a)·share of two rows of 16-bit values; share of 2^15. */
export function mixFine(a: usize, b: usize, out: usize, count: i32, share: i32): void {
  const weight = i16x8.splat(<i16>share)
  for (let i = 0; i < count; i += 8) {
    const from = v128.load(a + (i << 1))
    v128.store(out + (i << 1), i16x8.add(from, i16x8.q15mulr_sat_s(i16x8.sub(v128.load(b + (i << 1)), from), weight)))
  }
}

/** Alpha through a table of 256 bytes. */
export function alphaTable(pixels: usize, count: i32, table: usize): void {
  for (let i = 0; i < count; i += 1) store<u8>(pixels + (i << 2), load<u8>(table + <usize>load<u8>(pixels + (i << 2), 3)), 3)
}

/**
 * The person's opacity in a row (core/matte/person-mask.ts), one byte a pixel. `gains` and `offsets` are rows of
 * floats already mixed between two mask rows; `cells` and `shares` place each pixel.
 */
export function personRow(pixels: usize, out: usize, count: i32, gains: usize, offsets: usize, cells: usize, shares: usize, lastCell: i32, low: f32, high: f32): void {
  const scale = <f32>1 / (high - low)
  let i = 0
  while (i < count) {
    const left = load<i32>(cells + (i << 2))
    const right = min(lastCell, left + 1)
    const gainLeft = load<f32>(gains + (left << 2))
    const gainRight = load<f32>(gains + (right << 2))
    const offsetLeft = load<f32>(offsets + (left << 2))
    const offsetRight = load<f32>(offsets + (right << 2))
    const least = min(offsetLeft + min<f32>(0, gainLeft), offsetRight + min<f32>(0, gainRight))
    const most = max(offsetLeft + max<f32>(0, gainLeft), offsetRight + max<f32>(0, gainRight))
    if (least >= high || most <= low) {
      // All pixels between these two cells are alike, whatever their luma.
      const value: u8 = least >= high ? 255 : 0
      while (i < count && load<i32>(cells + (i << 2)) == left) {
        store<u8>(out + i, value)
        i += 1
      }
      continue
    }
    while (i < count && load<i32>(cells + (i << 2)) == left) {
      const share = load<f32>(shares + (i << 2))
      const pixel = load<u32>(pixels + (i << 2))
      const luma = (<f32>0.2126 * <f32>(pixel & 255) + <f32>0.7152 * <f32>((pixel >>> 8) & 255) + <f32>0.0722 * <f32>((pixel >>> 16) & 255)) / <f32>255
      const gain = gainLeft + (gainRight - gainLeft) * share
      const offset = offsetLeft + (offsetRight - offsetLeft) * share
      const t = max<f32>(0, min<f32>(1, (gain * luma + offset - low) * scale))
      store<u8>(out + i, <u8>byteOf(t * t * (<f32>3 - <f32>2 * t) * <f32>255))
      i += 1
    }
  }
}

/** a + (b − a)·share of `count` floats; runs into slack. */
export function mixFloats(a: usize, b: usize, out: usize, count: i32, share: f32): void {
  const weight = f32x4.splat(share)
  for (let i = 0; i < count; i += 4) {
    const from = v128.load(a + (i << 2))
    v128.store(out + (i << 2), f32x4.add(from, f32x4.mul(f32x4.sub(v128.load(b + (i << 2)), from), weight)))
  }
}

/** Colours × (255 − mask) with that weight as alpha: what is room, premultiplied. */
export function roomRow(pixels: usize, mask: usize, out: usize, count: i32): void {
  for (let i = 0; i < count; i += 1) {
    const weight = 255 - <u32>load<u8>(mask + i)
    if (weight == 0) {
      store<u32>(out + (i << 2), 0)
      continue
    }
    const pixel = load<u32>(pixels + (i << 2)) | 0xff000000
    if (weight == 255) {
      store<u32>(out + (i << 2), pixel)
      continue
    }
    let low = (pixel & 0xff00ff) * weight + 0x800080
    low = ((low + ((low >>> 8) & 0xff00ff)) >>> 8) & 0xff00ff
    let high = ((pixel >>> 8) & 0xff00ff) * weight + 0x800080
    high = (high + ((high >>> 8) & 0xff00ff)) & 0xff00ff00
    store<u32>(out + (i << 2), low | high)
  }
}

// @ts-ignore: decorator
@inline
function floatsOf(packed: usize): v128 {
  return f32x4.convert_i32x4_u(i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(v128.load32_zero(packed))))
}

/**
 * A small packed picture blurred by `2·radius + 1` float weights into four floats a pixel, colours divided by the
 * weight that alpha carried; `across` is room for as many floats.
 */
export function blurSmall(source: usize, width: i32, height: i32, taps: usize, radius: i32, across: usize, out: usize): void {
  for (let y = 0; y < height; y += 1) {
    const row = source + (<usize>(y * width) << 2)
    for (let x = 0; x < width; x += 1) {
      let sum = f32x4.splat(0)
      for (let k = -radius; k <= radius; k += 1) {
        const at = max(0, min(width - 1, x + k))
        sum = f32x4.add(sum, f32x4.mul(floatsOf(row + (<usize>at << 2)), v128.load32_splat(taps + (<usize>(k + radius) << 2))))
      }
      v128.store(across + (<usize>(y * width + x) << 4), sum)
    }
  }
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      let sum = f32x4.splat(0)
      for (let k = -radius; k <= radius; k += 1) {
        const at = max(0, min(height - 1, y + k))
        sum = f32x4.add(sum, f32x4.mul(v128.load(across + (<usize>(at * width + x) << 4)), v128.load32_splat(taps + (<usize>(k + radius) << 2))))
      }
      v128.store(out + (<usize>(y * width + x) << 4), sum)
    }
  }
}

/** Pixel · mask + room · (1 − mask); `room` is a row of premultiplied float pixels at a low size, weight in alpha. */
export function softenRow(pixels: usize, mask: usize, out: usize, count: i32, room: usize, cells: usize, shares: usize, lastCell: i32): void {
  for (let i = 0; i < count; i += 1) {
    const pixel = load<u32>(pixels + (i << 2))
    const alpha = <u32>load<u8>(mask + i)
    if (alpha == 255) {
      store<u32>(out + (i << 2), pixel)
      continue
    }
    const left = load<i32>(cells + (i << 2))
    const right = min(lastCell, left + 1)
    const from = v128.load(room + (<usize>left << 4))
    const mixed = f32x4.add(from, f32x4.mul(f32x4.sub(v128.load(room + (<usize>right << 4)), from), v128.load32_splat(shares + (i << 2))))
    const weight = f32x4.extract_lane(mixed, 3)
    if (weight < 0.255) {
      store<u32>(out + (i << 2), pixel)
      continue
    }
    const share = <f32>alpha / <f32>255
    const colour = f32x4.add(
      f32x4.mul(floatsOf(pixels + (i << 2)), f32x4.splat(share)),
      f32x4.mul(mixed, f32x4.splat((<f32>1 - share) * <f32>255 / weight)),
    )
    const whole = i32x4.trunc_sat_f32x4_u(f32x4.min(f32x4.splat(255), f32x4.add(colour, f32x4.splat(0.5))))
    const bytes = i8x16.narrow_i16x8_u(i16x8.narrow_i32x4_u(whole, whole), whole)
    store<u32>(out + (i << 2), (<u32>i32x4.extract_lane(bytes, 0) & 0xffffff) | (pixel & 0xff000000))
  }
}

/** Pixel · mask + other · (1 − mask), alpha kept. */
export function replaceRow(pixels: usize, mask: usize, other: usize, out: usize, count: i32): void {
  for (let i = 0; i < count; i += 1) {
    const pixel = load<u32>(pixels + (i << 2))
    const alpha = <u32>load<u8>(mask + i)
    if (alpha == 255) {
      store<u32>(out + (i << 2), pixel)
      continue
    }
    const behind = load<u32>(other + (i << 2))
    let result = pixel & 0xff000000
    for (let shift = 0; shift < 24; shift += 8) {
      const value = ((pixel >>> shift) & 255) * alpha + ((behind >>> shift) & 255) * (255 - alpha) + 128
      result |= (((value + (value >>> 8)) >>> 8) & 255) << shift
    }
    store<u32>(out + (i << 2), result)
  }
}

/** Alpha × mask. */
export function hideRow(pixels: usize, mask: usize, out: usize, count: i32): void {
  for (let i = 0; i < count; i += 1) {
    const pixel = load<u32>(pixels + (i << 2))
    store<u32>(out + (i << 2), (pixel & 0xffffff) | (scaled(pixel >>> 24, <u32>load<u8>(mask + i)) << 24))
  }
}
