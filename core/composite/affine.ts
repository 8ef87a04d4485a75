// 2-D affine maps as CSS Transforms 1 writes them: x' = a·x + c·y + e, y' = b·x + d·y + f; y points down.

export interface Affine {
  readonly a: number
  readonly b: number
  readonly c: number
  readonly d: number
  readonly e: number
  readonly f: number
}

export function translation(x: number, y: number): Affine {
  return { a: 1, b: 0, c: 0, d: 1, e: x, f: y }
}

export function scaling(x: number, y: number): Affine {
  return { a: x, b: 0, c: 0, d: y, e: 0, f: 0 }
}

/** Cosine and sine of whole quarters, exactly. */
const QUARTERS: Readonly<Record<number, readonly [cos: number, sin: number]>> = { 0: [1, 0], 90: [0, 1], 180: [-1, 0], 270: [0, -1] }

/** Rotation about the origin; positive is clockwise on screen. */
export function rotation(angleDeg: number): Affine {
  const radians = (angleDeg * Math.PI) / 180
  const [cos, sin] = QUARTERS[((angleDeg % 360) + 360) % 360] ?? [Math.cos(radians), Math.sin(radians)]
  return { a: cos, b: sin, c: -sin, d: cos, e: 0, f: 0 }
}

/** The map that applies `first`, then `second`. Not called "then": a module that exports such a name looks like a promise. */
export function followedBy(first: Affine, second: Affine): Affine {
  return {
    a: second.a * first.a + second.c * first.b,
    b: second.b * first.a + second.d * first.b,
    c: second.a * first.c + second.c * first.d,
    d: second.b * first.c + second.d * first.d,
    e: second.a * first.e + second.c * first.f + second.e,
    f: second.b * first.e + second.d * first.f + second.f,
  }
}

/** The map that undoes `map`. Throws a RangeError when it has no inverse. */
export function inverse(map: Affine): Affine {
  const determinant = map.a * map.d - map.b * map.c
  if (determinant === 0) throw new RangeError('an affine map without area has no inverse')
  const a = map.d / determinant
  const b = (0 - map.b) / determinant
  const c = (0 - map.c) / determinant
  const d = map.a / determinant
  return { a, b, c, d, e: 0 - (a * map.e + c * map.f), f: 0 - (b * map.e + d * map.f) }
}

/** Where the map sends a point. */
export function mapPoint(map: Affine, x: number, y: number): readonly [x: number, y: number] {
  return [map.a * x + map.c * y + map.e, map.b * x + map.d * y + map.f]
}
