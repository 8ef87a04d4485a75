// The pixels of an uploaded picture, small enough to look for its colours.
export interface ReadPicture {
  readonly widthPx: number
  readonly heightPx: number
  /** RGBA, straight alpha, of the picture at most `side` pixels on its longer side. */
  readonly data: Uint8ClampedArray
}

/** Colours do not need more. */
const SIDE_PX = 96

/** Reads a picture by its hash. Throws an Error when it cannot be had. */
export async function readPicture(hash: string): Promise<ReadPicture> {
  const response = await fetch(`/api/assets/${hash}`)
  if (!response.ok) throw new Error(`The server answered ${response.status}.`)
  const bitmap = await createImageBitmap(await response.blob())
  try {
    const { width, height } = bitmap
    const scale = Math.min(1, SIDE_PX / Math.max(width, height))
    const [small, low] = [Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale))]
    const pen = new OffscreenCanvas(small, low).getContext('2d', { willReadFrequently: true })!
    pen.imageSmoothingQuality = 'high'
    pen.drawImage(bitmap, 0, 0, small, low)
    return { widthPx: width, heightPx: height, data: pen.getImageData(0, 0, small, low).data }
  } finally {
    bitmap.close()
  }
}
