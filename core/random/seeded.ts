/** A repeatable stream of numbers 0 ≤ n < 1 (mulberry32, public domain). */
export function seededRandom(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

/** A number 0 ≤ n < 1 that depends on two whole numbers only. */
export function hashedRandom(first: number, second: number): number {
  return seededRandom((Math.imul(first, 0x9e3779b1) ^ Math.imul(second + 1, 0x85ebca6b)) >>> 0)()
}
