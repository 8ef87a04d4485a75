// White points: the Planckian locus, its normal, and adaptation from one white to another.

/** A chromaticity, CIE 1931 x and y. */
export interface Chromaticity {
  readonly x: number
  readonly y: number
}

/** Row-major 3 × 3. */
export type Matrix3 = readonly [number, number, number, number, number, number, number, number, number]

/** D65, the white of sRGB (IEC 61966-2-1). */
export const D65: Chromaticity = { x: 0.3127, y: 0.329 }

/** Linear sRGB to CIE XYZ, D65 (IEC 61966-2-1), and back. */
export const SRGB_TO_XYZ: Matrix3 = [0.4124564, 0.3575761, 0.1804375, 0.2126729, 0.7151522, 0.072175, 0.0193339, 0.119192, 0.9503041]
export const XYZ_TO_SRGB: Matrix3 = inverseOf(SRGB_TO_XYZ)

/** Cone responses after Bradford (Lam 1985), as in ICC profiles. */
const BRADFORD: Matrix3 = [0.8951, 0.2664, -0.1614, -0.7502, 1.7135, 0.0367, 0.0389, -0.0685, 1.0296]
const BRADFORD_INVERSE = inverseOf(BRADFORD)

/** Colour of a black body of `kelvin` (1667 to 25000), cubic approximation of Kim et al. 2002. */
export function planckianWhite(kelvin: number): Chromaticity {
  const t = 1000 / kelvin
  const x = kelvin <= 4000 ? ((-0.2661239 * t - 0.234358) * t + 0.8776956) * t + 0.17991 : ((-3.0258469 * t + 2.1070379) * t + 0.2226347) * t + 0.24039
  const y =
    kelvin <= 2222
      ? ((-1.1063814 * x - 1.3481102) * x + 2.18555832) * x - 0.20219683
      : kelvin <= 4000
        ? ((-0.9549476 * x - 1.37418593) * x + 2.09137015) * x - 0.16748867
        : ((3.081758 * x - 5.8733867) * x + 3.75112997) * x - 0.37001483
  return { x, y }
}

/** CIE 1960 u and v of a chromaticity. */
export function uvOf({ x, y }: Chromaticity): { readonly u: number; readonly v: number } {
  const divisor = -2 * x + 12 * y + 3
  return { u: (4 * x) / divisor, v: (6 * y) / divisor }
}

/** The chromaticity of CIE 1960 u and v. */
export function chromaticityOf(u: number, v: number): Chromaticity {
  const divisor = 2 * u - 8 * v + 4
  return { x: (3 * u) / divisor, y: (2 * v) / divisor }
}

/**
 * The white at `kelvin` on the Planckian locus, moved along its normal by `duv` in CIE 1960 u, v
 * (Duv of ANSI C78.377: positive is greenish, above the locus).
 */
export function whiteAt(kelvin: number, duv: number): Chromaticity {
  const here = uvOf(planckianWhite(kelvin))
  const normal = normalAt(kelvin)
  return chromaticityOf(here.u + normal.u * duv, here.v + normal.v * duv)
}

/** Unit normal of the locus, towards green. */
function normalAt(kelvin: number): { readonly u: number; readonly v: number } {
  const step = kelvin * 1e-3
  const warm = uvOf(planckianWhite(kelvin - step))
  const cool = uvOf(planckianWhite(kelvin + step))
  const length = Math.hypot(cool.u - warm.u, cool.v - warm.v)
  // The locus runs towards smaller u with rising temperature; the normal with positive v is green.
  return { u: (cool.v - warm.v) / length, v: -(cool.u - warm.u) / length }
}

/** XYZ of a chromaticity at Y = 1. */
export function xyzOf({ x, y }: Chromaticity): readonly [number, number, number] {
  return [x / y, 1, (1 - x - y) / y]
}

/** The XYZ matrix that makes `from` look like `to` (linear von Kries in Bradford cone space). */
export function adaptation(from: Chromaticity, to: Chromaticity): Matrix3 {
  const source = applyMatrix(BRADFORD, ...xyzOf(from))
  const target = applyMatrix(BRADFORD, ...xyzOf(to))
  const gains: Matrix3 = [target[0] / source[0], 0, 0, 0, target[1] / source[1], 0, 0, 0, target[2] / source[2]]
  return multiply(BRADFORD_INVERSE, multiply(gains, BRADFORD))
}

/**
 * The light under which `seen` is what `into` looks like under `usual`: adapting from the returned white to
 * `usual` turns `seen` into `into`.
 */
export function lightThatTurns(seen: Chromaticity, into: Chromaticity, usual: Chromaticity): Chromaticity {
  const coneOf = (white: Chromaticity) => applyMatrix(BRADFORD, ...xyzOf(white))
  const [seenCone, intoCone, usualCone] = [coneOf(seen), coneOf(into), coneOf(usual)]
  const cone = [0, 1, 2].map((i) => (usualCone[i]! * seenCone[i]!) / intoCone[i]!) as [number, number, number]
  const [x, y, z] = applyMatrix(BRADFORD_INVERSE, ...cone)
  return { x: x / (x + y + z), y: y / (x + y + z) }
}

/** a · b. */
export function multiply(a: Matrix3, b: Matrix3): Matrix3 {
  const at = (row: number, column: number) => a[row * 3]! * b[column]! + a[row * 3 + 1]! * b[3 + column]! + a[row * 3 + 2]! * b[6 + column]!
  return [at(0, 0), at(0, 1), at(0, 2), at(1, 0), at(1, 1), at(1, 2), at(2, 0), at(2, 1), at(2, 2)]
}

/** m · (x, y, z). */
export function applyMatrix(m: Matrix3, x: number, y: number, z: number): readonly [number, number, number] {
  return [m[0] * x + m[1] * y + m[2] * z, m[3] * x + m[4] * y + m[5] * z, m[6] * x + m[7] * y + m[8] * z]
}

function inverseOf(m: Matrix3): Matrix3 {
  const [a, b, c, d, e, f, g, h, i] = m
  const determinant = a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g)
  const raw = [e * i - f * h, c * h - b * i, b * f - c * e, f * g - d * i, a * i - c * g, c * d - a * f, d * h - e * g, b * g - a * h, a * e - b * d]
  return raw.map((value) => value / determinant) as unknown as Matrix3
}
