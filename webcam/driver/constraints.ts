// Which device a page asks for, and in what form, by the rules of W3C Media Capture and Streams §5 and §11.

/** Size and rate of a picture. */
export interface PictureFormat {
  readonly widthPx: number
  readonly heightPx: number
  readonly frameRate: number
}

/** What a page wants of a track: at most this size and rate. Null: as it comes. */
export interface PictureWish {
  readonly widthPx: number | null
  readonly heightPx: number | null
  readonly frameRate: number | null
  /** Whether the picture may lose its edges to have exactly this shape. A mere preference never cuts a title off. */
  readonly mayCrop: boolean
}

export const ANY_PICTURE: PictureWish = { widthPx: null, heightPx: null, frameRate: null, mayCrop: false }

/** What the virtual camera can be asked about. */
export interface CameraFacts {
  readonly deviceId: string
  readonly source: PictureFormat
}

/** 'ours', 'other' (a real device), 'any' when the page does not say, 'none' when it wants nothing of the kind. */
export type Wish = 'ours' | 'other' | 'any' | 'none'

/** Reads the wish from one part of getUserMedia's argument. */
export function wishOf(part: boolean | MediaTrackConstraints | undefined, deviceId: string): Wish {
  if (part === undefined || part === false) return 'none'
  if (part === true) return 'any'
  const sets: MediaTrackConstraintSet[] = [part, ...(part.advanced ?? [])]
  const ids = sets.flatMap((set) => deviceIdsOf(set.deviceId))
  if (ids.length === 0) return 'any'
  return ids.includes(deviceId) ? 'ours' : 'other'
}

function deviceIdsOf(wish: ConstrainDOMString | undefined): string[] {
  if (wish === undefined) return []
  if (typeof wish === 'string') return [wish]
  if (Array.isArray(wish)) return wish
  return [wish.exact, wish.ideal].flatMap((part) => (part === undefined ? [] : part))
}

/** What a track should give for a page's constraints. */
export function pictureWish(video: MediaTrackConstraints): PictureWish {
  const width = rangeOf(video.width)
  const height = rangeOf(video.height)
  const aspect = rangeOf(video.aspectRatio)
  const resizeMode = (video as { resizeMode?: ConstrainDOMString }).resizeMode
  const isExact = width.exact !== undefined && height.exact !== undefined
  const asksToCrop = deviceIdsOf(resizeMode).includes('crop-and-scale') && targetOf(width) !== null && targetOf(height) !== null
  const shaped =
    aspect.exact === undefined ? { widthPx: targetOf(width), heightPx: targetOf(height) } : shapeOf(aspect.exact, targetOf(width), targetOf(height))
  return { ...shaped, frameRate: targetOf(rangeOf(video.frameRate)), mayCrop: isExact || asksToCrop || aspect.exact !== undefined }
}

/** A size of a given shape; with neither side given, one that any picture must be cut to. */
function shapeOf(aspect: number, widthPx: number | null, heightPx: number | null) {
  if (widthPx !== null) return { widthPx, heightPx: heightPx ?? Math.round(widthPx / aspect) }
  const height = heightPx ?? 720
  return { widthPx: Math.round(height * aspect), heightPx: height }
}

/** The form in which a picture of `source` goes to a track with `wish`: never larger, whole unless it may be cropped. */
export function formatFor(wish: PictureWish, source: PictureFormat): PictureFormat {
  const frameRate = Math.min(wish.frameRate ?? source.frameRate, source.frameRate)
  const shrinkX = wish.widthPx === null ? 1 : wish.widthPx / source.widthPx
  const shrinkY = wish.heightPx === null ? 1 : wish.heightPx / source.heightPx
  if (wish.mayCrop && wish.widthPx !== null && wish.heightPx !== null) {
    const shrink = Math.min(1, 1 / shrinkX, 1 / shrinkY)
    const isInside = shrinkX <= 1 && shrinkY <= 1
    const [widthPx, heightPx] = isInside ? [wish.widthPx, wish.heightPx] : [wish.widthPx * shrink, wish.heightPx * shrink]
    return { widthPx: pixels(widthPx), heightPx: pixels(heightPx), frameRate }
  }
  const shrink = Math.min(1, shrinkX, shrinkY)
  return { widthPx: pixels(source.widthPx * shrink), heightPx: pixels(source.heightPx * shrink), frameRate }
}

const pixels = (length: number) => Math.max(1, Math.round(length))

/** The first required constraint that the camera cannot meet; null when it meets all. */
export function unmetConstraint(video: MediaTrackConstraints, { deviceId, source }: CameraFacts): string | null {
  const { widthPx, heightPx, frameRate } = formatFor(pictureWish(video), source)
  const given = { width: widthPx, height: heightPx, frameRate, aspectRatio: widthPx / heightPx }
  for (const [name, value] of Object.entries(given)) {
    const { exact, min, max } = rangeOf(video[name as keyof typeof given])
    // Whole pixels cannot have every shape.
    const slack = name === 'aspectRatio' ? 0.02 : 0.01
    if (exact !== undefined && Math.abs(exact - value) > slack) return name
    if (min !== undefined && min > value + slack) return name
    if (max !== undefined && max < value - slack) return name
  }
  const facing = video.facingMode
  if (typeof facing === 'object' && !Array.isArray(facing) && facing.exact !== undefined) return 'facingMode'
  return unmetDevice(video, deviceId)
}

/** The first required constraint that the microphone cannot meet: it hands on what the studio made, and works on it no more. */
export function unmetSound(audio: MediaTrackConstraints, deviceId: string): string | null {
  for (const name of ['echoCancellation', 'noiseSuppression', 'autoGainControl'] as const) {
    const wish = audio[name]
    if (typeof wish === 'object' && wish !== null && 'exact' in wish && wish.exact !== undefined && wish.exact !== false) return name
  }
  const { exact, min } = rangeOf(audio.sampleRate)
  if ((exact !== undefined && exact !== 48_000) || (min !== undefined && min > 48_000)) return 'sampleRate'
  return unmetDevice(audio, deviceId)
}

function unmetDevice({ deviceId: wish }: MediaTrackConstraints, deviceId: string): string | null {
  if (typeof wish !== 'object' || Array.isArray(wish) || wish.exact === undefined) return null
  const exact = Array.isArray(wish.exact) ? wish.exact : [wish.exact]
  return exact.includes(deviceId) ? null : 'deviceId'
}

/** A number alone is a preference. */
function rangeOf(wish: ConstrainULong | ConstrainDouble | undefined): ConstrainULongRange {
  if (wish === undefined || wish === null) return {}
  return typeof wish === 'number' ? { ideal: wish } : wish
}

/** What a range aims at; its upper end when it names no aim. */
function targetOf({ exact, ideal, min, max }: ConstrainULongRange): number | null {
  const aim = exact ?? ideal ?? max
  if (aim === undefined) return null
  return Math.min(Math.max(aim, min ?? 0), max ?? Infinity)
}
