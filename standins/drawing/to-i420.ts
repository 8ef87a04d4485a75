// Opaque RGBA as I420 codes of BT.709 in limited range, in whole numbers: drawn screens are converted many times a second.

/** A part of a picture, in its pixels. */
export interface Part {
  readonly x: number
  readonly y: number
  readonly widthPx: number
  readonly heightPx: number
}

/** Writes the codes of a part into those of the whole picture, `out`; all numbers are even. `rgba` is the part alone. */
export function rgbaToI420Into(rgba: Uint8ClampedArray, part: Part, out: Uint8Array, widthPx: number, heightPx: number): void {
  const lumaLength = widthPx * heightPx
  const chromaWidth = widthPx >> 1
  for (let y = 0; y < part.heightPx; y += 2) {
    let cb = lumaLength + ((part.y + y) >> 1) * chromaWidth + (part.x >> 1)
    let cr = cb + (lumaLength >> 2)
    for (let x = 0; x < part.widthPx; x += 2) {
      let red = 0
      let green = 0
      let blue = 0
      for (let corner = 0; corner < 4; corner += 1) {
        const at = (y + (corner >> 1)) * part.widthPx + x + (corner & 1)
        const r = rgba[at * 4]!
        const g = rgba[at * 4 + 1]!
        const b = rgba[at * 4 + 2]!
        red += r
        green += g
        blue += b
        // 65536 × the weights of ITU-R BT.709 scaled to 219 codes, 16 and a half added.
        out[(part.y + y + (corner >> 1)) * widthPx + part.x + x + (corner & 1)] = (11966 * r + 40254 * g + 4064 * b + 1081344) >> 16
      }
      // A fourth of the sums, 224 codes about 128.
      out[cb++] = (-6596 * red - 22189 * green + 28785 * blue + 33685504) >> 18
      out[cr++] = (28785 * red - 26145 * green - 2640 * blue + 33685504) >> 18
    }
  }
}
