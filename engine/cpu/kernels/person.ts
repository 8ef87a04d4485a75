// AssemblyScript: where the person is: a small mask fitted to the picture and brought to full size.

/** Luma (BT.709) of four packed pixels, 0..1. */
// @ts-ignore: decorator
@inline
function lumaOfFour(four: v128): v128 {
  const byte = i32x4.splat(255)
  const red = f32x4.convert_i32x4_u(v128.and(four, byte))
  const green = f32x4.convert_i32x4_u(v128.and(i32x4.shr_u(four, 8), byte))
  const blue = f32x4.convert_i32x4_u(v128.and(i32x4.shr_u(four, 16), byte))
  return f32x4.add(
    f32x4.add(f32x4.mul(red, f32x4.splat(0.2126 / 255)), f32x4.mul(green, f32x4.splat(0.7152 / 255))),
    f32x4.mul(blue, f32x4.splat(0.0722 / 255)),
  )
}

/** Four floats from 0 to 255, rounded to nearest, as bytes in the first lane. */
// @ts-ignore: decorator
@inline
function bytesOfFour(values: v128): v128 {
  const whole = f32x4.add(values, f32x4.splat(8388608))
  return v128.shuffle<u8>(whole, whole, 0, 4, 8, 12, 0, 4, 8, 12, 0, 4, 8, 12, 0, 4, 8, 12)
}

/**
 * Moments for a guided fit (core/matte/guided-filter.ts), four floats a cell: luma, mask, luma², luma · mask. `sums` holds
 * luma added up, `scales` what makes it a mean.
 */
export function momentCells(sums: usize, scales: usize, mask: usize, out: usize, count: i32): void {
  for (let i = 0; i < count; i += 1) {
    const luma = load<f32>(sums + (i << 2)) * load<f32>(scales + (i << 2))
    const value = load<f32>(mask + (i << 2))
    v128.store(out + (i << 4), f32x4(luma, value, luma * luma, luma * value))
  }
}

/** Means of ±radius cells across into `spare` and down into `cells`, cut off at the borders; four floats a cell. */
export function boxCells(cells: usize, spare: usize, sums: usize, width: i32, height: i32, radius: i32): void {
  for (let y = 0; y < height; y += 1) {
    const row = cells + (<usize>(y * width) << 4)
    const to = spare + (<usize>(y * width) << 4)
    let sum = f32x4.splat(0)
    for (let x = 0; x <= min(radius, width - 1); x += 1) sum = f32x4.add(sum, v128.load(row + (<usize>x << 4)))
    for (let x = 0; x < width; x += 1) {
      const cellsIn = min(width - 1, x + radius) - max(0, x - radius) + 1
      v128.store(to + (<usize>x << 4), f32x4.mul(sum, f32x4.splat(<f32>1 / <f32>cellsIn)))
      if (x + radius + 1 < width) sum = f32x4.add(sum, v128.load(row + (<usize>(x + radius + 1) << 4)))
      if (x - radius >= 0) sum = f32x4.sub(sum, v128.load(row + (<usize>(x - radius) << 4)))
    }
  }
  for (let x = 0; x < width; x += 1) v128.store(sums + (<usize>x << 4), f32x4.splat(0))
  for (let y = 0; y <= min(radius, height - 1); y += 1) addCells(sums, spare + (<usize>(y * width) << 4), width)
  for (let y = 0; y < height; y += 1) {
    const scale = f32x4.splat(<f32>1 / <f32>(min(height - 1, y + radius) - max(0, y - radius) + 1))
    const to = cells + (<usize>(y * width) << 4)
    for (let x = 0; x < width; x += 1) v128.store(to + (<usize>x << 4), f32x4.mul(v128.load(sums + (<usize>x << 4)), scale))
    if (y + radius + 1 < height) addCells(sums, spare + (<usize>((y + radius + 1) * width) << 4), width)
    if (y - radius < 0) continue
    const gone = spare + (<usize>((y - radius) * width) << 4)
    for (let x = 0; x < width; x += 1) {
      v128.store(sums + (<usize>x << 4), f32x4.sub(v128.load(sums + (<usize>x << 4)), v128.load(gone + (<usize>x << 4))))
    }
  }
}

function addCells(sums: usize, row: usize, width: i32): void {
  for (let x = 0; x < width; x += 1) v128.store(sums + (<usize>x << 4), f32x4.add(v128.load(sums + (<usize>x << 4)), v128.load(row + (<usize>x << 4))))
}

/** Means of moments turned into gain and offset of the fit, in place. */
export function fitCells(cells: usize, count: i32, epsilon: f32): void {
  for (let i = 0; i < count; i += 1) {
    const mean = v128.load(cells + (i << 4))
    const luma = f32x4.extract_lane(mean, 0)
    const value = f32x4.extract_lane(mean, 1)
    const gain = (f32x4.extract_lane(mean, 3) - luma * value) / (f32x4.extract_lane(mean, 2) - luma * luma + epsilon)
    v128.store(cells + (i << 4), f32x4(gain, value - gain * luma, 0, 0))
  }
}

/** Gain and offset of each cell as two planes; `edge` is added to the offset. */
export function splitCells(cells: usize, gains: usize, offsets: usize, count: i32, edge: f32): void {
  for (let i = 0; i < count; i += 1) {
    store<f32>(gains + (i << 2), load<f32>(cells + (i << 4)))
    store<f32>(offsets + (i << 2), load<f32>(cells + (i << 4), 4) + edge)
  }
}

/** Adds luma codes of every second pixel of a row to cells; `cells` holds the cell of each pixel. */
export function addLumaRow(pixels: usize, count: i32, cells: usize, sums: usize): void {
  for (let x = 0; x < count; x += 2) {
    const pixel = load<u32>(pixels + (x << 2))
    const at = sums + (<usize>load<i32>(cells + (x << 2)) << 2)
    const luma = <f32>0.2126 * <f32>(pixel & 255) + <f32>0.7152 * <f32>((pixel >>> 8) & 255) + <f32>0.0722 * <f32>((pixel >>> 16) & 255)
    store<f32>(at, load<f32>(at) + luma)
  }
}

/**
 * The person's opacity in a row (core/matte/person-mask.ts), one byte a pixel. `gains` and `offsets` are rows of floats
 * already mixed between two mask rows, with room for four more; pixels `starts[c]` to `starts[c + 1]` lie between cells c and
 * c + 1, by `shares`. `kinds` is room for a byte a cell. May write up to 15 bytes past the row.
 */
export function personRow(
  pixels: usize, out: usize, gains: usize, offsets: usize, starts: usize, shares: usize, kinds: usize, lastCell: i32, low: f32, high: f32,
): void {
  const scale = <f32>1 / (high - low)
  store<f32>(gains + ((lastCell + 1) << 2), load<f32>(gains + (lastCell << 2)))
  store<f32>(offsets + ((lastCell + 1) << 2), load<f32>(offsets + (lastCell << 2)))
  markCells(gains, offsets, kinds, lastCell + 1, low, high)
  let cell = 0
  while (cell <= lastCell) {
    const kind = load<u8>(kinds + cell)
    let i = load<i32>(starts + (cell << 2))
    if (kind != MIXED) {
      // All pixels between these cells are alike, whatever their luma.
      do cell += 1
      while (cell <= lastCell && load<u8>(kinds + cell) == kind)
      const end = load<i32>(starts + (cell << 2))
      const value = i8x16.splat(<i8>kind)
      for (; i < end; i += 16) v128.store(out + i, value)
      continue
    }
    const end = load<i32>(starts + ((cell + 1) << 2))
    const gainFirst = v128.load32_splat(gains + (cell << 2))
    const offsetFirst = v128.load32_splat(offsets + (cell << 2))
    const gainStep = f32x4.sub(v128.load32_splat(gains + ((cell + 1) << 2)), gainFirst)
    const offsetStep = f32x4.sub(v128.load32_splat(offsets + ((cell + 1) << 2)), offsetFirst)
    // Four at a time; those past these two cells are written again with the next ones.
    for (; i < end; i += 4) {
      const share = v128.load(shares + (i << 2))
      const gain = f32x4.add(gainFirst, f32x4.mul(gainStep, share))
      const offset = f32x4.add(offsetFirst, f32x4.mul(offsetStep, share))
      const guided = f32x4.add(f32x4.mul(gain, lumaOfFour(v128.load(pixels + (i << 2)))), offset)
      const t = f32x4.max(f32x4.splat(0), f32x4.min(f32x4.splat(1), f32x4.mul(f32x4.sub(guided, f32x4.splat(low)), f32x4.splat(scale))))
      const smooth = f32x4.mul(f32x4.mul(t, t), f32x4.sub(f32x4.splat(3), f32x4.add(t, t)))
      v128.store32_lane(out + i, bytesOfFour(f32x4.mul(smooth, f32x4.splat(255))), 0)
    }
    cell += 1
  }
}

/** What lies between a cell and the next: nothing but the room (0), nothing but the person (255), or either. */
const MIXED: u8 = 1

/** Writes the kind of each cell; runs into slack. */
function markCells(gains: usize, offsets: usize, kinds: usize, count: i32, low: f32, high: f32): void {
  const zero = f32x4.splat(0)
  const room = f32x4.splat(low)
  const person = f32x4.splat(high)
  for (let c = 0; c < count; c += 4) {
    const gain = v128.load(gains + (c << 2))
    const offset = v128.load(offsets + (c << 2))
    const nextGain = v128.load(gains + ((c + 1) << 2))
    const nextOffset = v128.load(offsets + ((c + 1) << 2))
    const least = f32x4.min(f32x4.add(offset, f32x4.min(zero, gain)), f32x4.add(nextOffset, f32x4.min(zero, nextGain)))
    const most = f32x4.max(f32x4.add(offset, f32x4.max(zero, gain)), f32x4.add(nextOffset, f32x4.max(zero, nextGain)))
    const isPerson = f32x4.ge(least, person)
    const isRoom = f32x4.le(most, room)
    // All ones for the person; one for what is neither.
    const kind = v128.or(isPerson, v128.andnot(i32x4.splat(MIXED), isRoom))
    v128.store32_lane(kinds + c, v128.shuffle<u8>(kind, kind, 0, 4, 8, 12, 0, 4, 8, 12, 0, 4, 8, 12, 0, 4, 8, 12), 0)
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
