/** Index below, index above and the share of the one above, for a position between cell centres; edges repeat. */
export interface Between {
  readonly below: Int32Array
  readonly above: Int32Array
  readonly share: Float32Array
}

/** Where each of `count` pixels lies on an axis of `cells` cells stretched over them. */
export function placesBetween(count: number, cells: number): Between {
  const below = new Int32Array(count)
  const above = new Int32Array(count)
  const share = new Float32Array(count)
  for (let i = 0; i < count; i += 1) {
    const at = Math.min(cells - 1, Math.max(0, ((i + 0.5) * cells) / count - 0.5))
    below[i] = Math.floor(at)
    above[i] = Math.min(cells - 1, below[i]! + 1)
    share[i] = at - below[i]!
  }
  return { below, above, share }
}

/** The same for cells of `cellPx` pixels, of which the last may be cut off. */
export function placesInCells(count: number, cellPx: number): Between {
  const cells = Math.ceil(count / cellPx)
  const below = new Int32Array(count)
  const above = new Int32Array(count)
  const share = new Float32Array(count)
  for (let i = 0; i < count; i += 1) {
    const at = Math.min(cells - 1, Math.max(0, (i + 0.5) / cellPx - 0.5))
    below[i] = Math.floor(at)
    above[i] = Math.min(cells - 1, below[i]! + 1)
    share[i] = at - below[i]!
  }
  return { below, above, share }
}
