/**
 * The longest run of things that two lists have in the same order (longest common subsequence, by the table of Wagner and Fischer 1974):
 * pairs of places in the one and in the other. Of several as long, the one that lies further forward in the first.
 */
export function commonOrder<T>(one: readonly T[], other: readonly T[], isSame: (a: T, b: T) => boolean): readonly (readonly [number, number])[] {
  const width = other.length + 1
  const lengths = new Uint16Array((one.length + 1) * width)
  for (let i = one.length - 1; i >= 0; i -= 1) {
    for (let j = other.length - 1; j >= 0; j -= 1) {
      lengths[i * width + j] = isSame(one[i]!, other[j]!)
        ? lengths[(i + 1) * width + j + 1]! + 1
        : Math.max(lengths[(i + 1) * width + j]!, lengths[i * width + j + 1]!)
    }
  }
  const pairs: (readonly [number, number])[] = []
  for (let i = 0, j = 0; i < one.length && j < other.length;) {
    if (isSame(one[i]!, other[j]!)) {
      pairs.push([i, j])
      i += 1
      j += 1
    } else if (lengths[(i + 1) * width + j]! >= lengths[i * width + j + 1]!) i += 1
    else j += 1
  }
  return pairs
}
