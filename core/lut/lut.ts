// Colour look-up tables, straight sRGB-encoded colour in and out.

/** A table: three curves, or a cube of colours. */
export interface Lut {
  readonly kind: '1d' | '3d'
  /** Points along one axis. */
  readonly size: number
  /** Input that falls on the first and the last point, per channel. */
  readonly domainMin: readonly [number, number, number]
  readonly domainMax: readonly [number, number, number]
  /** Red, green, blue for each point; in a cube red runs fastest, then green, then blue. */
  readonly data: Float32Array
}

export type Interpolation = 'tetrahedral' | 'trilinear'

/**
 * Looks a colour up, in place. Cubes are read tetrahedrally unless asked otherwise: the grey axis then meets only
 * the cube's own greys (Kasson et al. 1995). Inputs outside the domain take its nearest end.
 */
export function applyLut(lut: Lut, pixel: Float64Array, interpolation: Interpolation = 'tetrahedral'): void {
  const last = lut.size - 1
  const place = (channel: number) => {
    const low = lut.domainMin[channel]!
    const share = (pixel[channel]! - low) / (lut.domainMax[channel]! - low)
    return (share < 0 ? 0 : share > 1 ? 1 : share) * last
  }
  const red = place(0)
  const green = place(1)
  const blue = place(2)
  if (lut.kind === '1d') applyCurves(lut, red, green, blue, pixel)
  else if (interpolation === 'tetrahedral') applyTetrahedral(lut, red, green, blue, pixel)
  else applyTrilinear(lut, red, green, blue, pixel)
}

function applyCurves({ size, data }: Lut, red: number, green: number, blue: number, pixel: Float64Array): void {
  const at = (position: number, channel: number) => {
    const below = Math.min(size - 2, Math.floor(position))
    const share = position - below
    return data[below * 3 + channel]! * (1 - share) + data[below * 3 + 3 + channel]! * share
  }
  pixel[0] = at(red, 0)
  pixel[1] = at(green, 1)
  pixel[2] = at(blue, 2)
}

function applyTetrahedral({ size, data }: Lut, red: number, green: number, blue: number, pixel: Float64Array): void {
  const r = Math.min(size - 2, Math.floor(red))
  const g = Math.min(size - 2, Math.floor(green))
  const b = Math.min(size - 2, Math.floor(blue))
  const fr = red - r
  const fg = green - g
  const fb = blue - b
  const stepR = 3
  const stepG = size * 3
  const stepB = size * size * 3
  const first = r * stepR + g * stepG + b * stepB
  // Walk from corner 000 to 111, along the axis with the largest remainder first.
  let most = fr
  let middle = fg
  let least = fb
  let mostStep = stepR
  let middleStep = stepG
  let leastStep = stepB
  if (middle > most) [most, middle, mostStep, middleStep] = [middle, most, middleStep, mostStep]
  if (least > middle) [middle, least, middleStep, leastStep] = [least, middle, leastStep, middleStep]
  if (middle > most) [most, middle, mostStep, middleStep] = [middle, most, middleStep, mostStep]
  const second = first + mostStep
  const third = second + middleStep
  const fourth = third + leastStep
  for (let channel = 0; channel < 3; channel += 1) {
    pixel[channel] =
      data[first + channel]! * (1 - most) +
      data[second + channel]! * (most - middle) +
      data[third + channel]! * (middle - least) +
      data[fourth + channel]! * least
  }
}

function applyTrilinear({ size, data }: Lut, red: number, green: number, blue: number, pixel: Float64Array): void {
  const r = Math.min(size - 2, Math.floor(red))
  const g = Math.min(size - 2, Math.floor(green))
  const b = Math.min(size - 2, Math.floor(blue))
  const out = [0, 0, 0]
  for (let corner = 0; corner < 8; corner += 1) {
    const dr = corner & 1
    const dg = (corner >> 1) & 1
    const db = corner >> 2
    const weight = (dr === 1 ? red - r : 1 - red + r) * (dg === 1 ? green - g : 1 - green + g) * (db === 1 ? blue - b : 1 - blue + b)
    const at = ((b + db) * size * size + (g + dg) * size + r + dr) * 3
    for (let channel = 0; channel < 3; channel += 1) out[channel]! += data[at + channel]! * weight
  }
  for (let channel = 0; channel < 3; channel += 1) pixel[channel] = out[channel]!
}

/** A cube made of a colour function: `colourOf` gets red, green, blue 0..1 in `pixel` and changes it. */
export function bakeLut(size: number, colourOf: (pixel: Float64Array) => void): Lut {
  const data = new Float32Array(size ** 3 * 3)
  const pixel = new Float64Array(4)
  let at = 0
  for (let b = 0; b < size; b += 1) {
    for (let g = 0; g < size; g += 1) {
      for (let r = 0; r < size; r += 1) {
        pixel[0] = r / (size - 1)
        pixel[1] = g / (size - 1)
        pixel[2] = b / (size - 1)
        colourOf(pixel)
        data[at++] = pixel[0]
        data[at++] = pixel[1]
        data[at++] = pixel[2]
      }
    }
  }
  return { kind: '3d', size, domainMin: [0, 0, 0], domainMax: [1, 1, 1], data }
}
