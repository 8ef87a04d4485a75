// Photos of our camera (W3C MediaStream Image Capture): the picture that is there now, since ours has no finer one to give.

interface Capture {
  grabFrame(): Promise<ImageBitmap>
}

/** The picture of now as a file, at the track's size. */
export async function takePhoto(capture: Capture): Promise<Blob> {
  const picture = await capture.grabFrame()
  try {
    const sheet = new OffscreenCanvas(picture.width, picture.height)
    sheet.getContext('2d', { alpha: false, willReadFrequently: true })!.drawImage(picture, 0, 0)
    return await sheet.convertToBlob({ type: 'image/jpeg', quality: 0.92 })
  } finally {
    picture.close()
  }
}

interface TrackSize {
  readonly width: number
  readonly height: number
}

/** One size, no flash, nothing to remove red eyes with. */
export async function photoCapabilities({ width, height }: TrackSize): Promise<object> {
  const only = (value: number) => ({ min: value, max: value, step: 0 })
  return { imageWidth: only(width), imageHeight: only(height), fillLightMode: [], redEyeReduction: 'never' }
}

export async function photoSettings({ width, height }: TrackSize): Promise<object> {
  return { imageWidth: width, imageHeight: height }
}
