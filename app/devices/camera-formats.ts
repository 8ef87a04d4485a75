// Which sizes and rates are offered for a camera.

export interface CameraFormat {
  readonly widthPx: number
  readonly heightPx: number
  readonly frameRate: number
}

/** Common sizes of cameras, the usual one first (common practice, no source). */
const SIZES = [
  [1280, 720],
  [1920, 1080],
  [640, 360],
  [2560, 1440],
  [3840, 2160],
] as const
const RATES = [30, 60, 15] as const
/** What every camera, and every stand-in, can be asked for. */
const USUAL: CameraFormat = { widthPx: 1920, heightPx: 1080, frameRate: 60 }

/** Sizes and rates up to what the device says it can do (null: it did not say), with the present one among them. */
export function formatsOf(most: CameraFormat | null, present: CameraFormat): CameraFormat[] {
  const { widthPx: mostWidth, heightPx: mostHeight, frameRate: mostRate } = most ?? USUAL
  const offered = SIZES.filter(([width, height]) => width <= mostWidth && height <= mostHeight).flatMap(([widthPx, heightPx]) =>
    // A browser may report 59.94 or 29.97.
    RATES.filter((rate) => rate <= Math.ceil(mostRate)).map((frameRate) => ({ widthPx, heightPx, frameRate })),
  )
  const isPresent = offered.some(
    (format) => format.widthPx === present.widthPx && format.heightPx === present.heightPx && format.frameRate === present.frameRate,
  )
  return isPresent ? offered : [present, ...offered]
}
