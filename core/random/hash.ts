/** A 53-bit hash of a string (two 32-bit multiplicative ones, mixed): equal strings, equal numbers; others practically never. */
export function hash53(text: string): number {
  let one = 0xdeadbeef
  let two = 0x41c6ce57
  for (let i = 0; i < text.length; i += 1) {
    const unit = text.charCodeAt(i)
    one = Math.imul(one ^ unit, 2654435761)
    two = Math.imul(two ^ unit, 1597334677)
  }
  one = Math.imul(one ^ (one >>> 16), 2246822507) ^ Math.imul(two ^ (two >>> 13), 3266489909)
  two = Math.imul(two ^ (two >>> 16), 2246822507) ^ Math.imul(one ^ (one >>> 13), 3266489909)
  return 4294967296 * (2097151 & two) + (one >>> 0)
}
