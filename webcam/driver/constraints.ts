// Reads what a page asks for: which device, and within which bounds, by the rules of W3C Media Capture and Streams §5 and §11.

/** Size and rate of a picture. */
export interface PictureFormat {
  readonly widthPx: number
  readonly heightPx: number
  readonly frameRate: number
}

/** Bounds and aim of one property; null where the page sets none. */
export interface Bounds {
  readonly min: number | null
  readonly max: number | null
  readonly ideal: number | null
}

export type ResizeMode = 'none' | 'crop-and-scale'

/** What one set of constraints says of a picture. `resizeModes`: those it allows; null for either. */
export interface PictureBounds {
  readonly width: Bounds
  readonly height: Bounds
  readonly aspectRatio: Bounds
  readonly frameRate: Bounds
  readonly resizeModes: readonly ResizeMode[] | null
}

/** What a page wants of a track: what it requires, then sets that count only where they can be met as well. */
export interface PictureWish {
  readonly required: PictureBounds
  readonly advanced: readonly PictureBounds[]
  /** The page asks for the aimed-at shape even if the edges go. Otherwise the picture stays whole wherever it may. */
  readonly prefersCrop: boolean
}

const NO_BOUNDS: Bounds = { min: null, max: null, ideal: null }
export const ANY_BOUNDS: PictureBounds = { width: NO_BOUNDS, height: NO_BOUNDS, aspectRatio: NO_BOUNDS, frameRate: NO_BOUNDS, resizeModes: null }
export const ANY_PICTURE: PictureWish = { required: ANY_BOUNDS, advanced: [], prefersCrop: false }

/** The ids of the virtual devices that a wish is read against. */
export interface OwnIds {
  readonly deviceId: string
  readonly groupId: string
}

/** 'ours', 'other' (a real device), 'any' when any device will do, 'none' when the page wants nothing of the kind. */
export type Wish = 'ours' | 'other' | 'any' | 'none'

/** Ids that name no device for good, but whichever the browser prefers. */
const NO_DEVICE_OF_ITS_OWN = ['', 'default', 'communications']

/** Reads from one part of getUserMedia's argument which device is wanted. An id that is merely preferred, and is not ours, leaves any device possible. */
export function wishOf(part: boolean | MediaTrackConstraints | undefined, own: OwnIds): Wish {
  if (part === undefined || part === false || part === null) return 'none'
  if (part === true) return 'any'
  const isOwn = (id: string, name: 'deviceId' | 'groupId') => id !== '' && id === own[name]
  const names = ['deviceId', 'groupId'] as const
  const required = names.flatMap((name) => {
    const exact = exactWords(part[name])
    return exact.length === 0 ? [] : [exact.some((id) => isOwn(id, name)) ? 'ours' : exact.every((id) => NO_DEVICE_OF_ITS_OWN.includes(id)) ? 'any' : 'other']
  })
  if (required.includes('other')) return 'other'
  if (required.includes('ours')) return 'ours'
  const preferred = names.some((name) => [part, ...(part.advanced ?? [])].some((set) => allWords(set[name]).some((id) => isOwn(id, name))))
  return preferred ? 'ours' : 'any'
}

/** The words that a constraint requires, of which one must hold. */
export function exactWords(wish: ConstrainDOMString | undefined): readonly string[] {
  if (typeof wish !== 'object' || wish === null || Array.isArray(wish) || wish.exact === undefined) return []
  return Array.isArray(wish.exact) ? wish.exact : [wish.exact]
}

/** Every word that a constraint names. */
export function allWords(wish: ConstrainDOMString | undefined): readonly string[] {
  if (wish === undefined || wish === null) return []
  if (typeof wish === 'string') return [wish]
  if (Array.isArray(wish)) return wish
  return [wish.exact, wish.ideal].flatMap((part) => (part === undefined ? [] : part))
}

/** What a track should give for a page's constraints. */
export function pictureWish(video: MediaTrackConstraints): PictureWish {
  const required = boundsOf(video, false)
  const asksToCrop = allWords((video as { resizeMode?: ConstrainDOMString }).resizeMode).includes('crop-and-scale')
  const advanced = (video.advanced ?? []).map((set) => boundsOf(set, true))
  return { required, advanced, prefersCrop: asksToCrop }
}

/** In an advanced set a value alone is required; in a basic one it is an aim. */
function boundsOf(set: MediaTrackConstraintSet, isAdvanced: boolean): PictureBounds {
  const modes = (set as { resizeMode?: ConstrainDOMString }).resizeMode
  const required = isAdvanced && (typeof modes === 'string' || Array.isArray(modes)) ? allWords(modes) : exactWords(modes)
  return {
    width: rangeOf(set.width, isAdvanced, true),
    height: rangeOf(set.height, isAdvanced, true),
    aspectRatio: rangeOf(set.aspectRatio, isAdvanced),
    frameRate: rangeOf(set.frameRate, isAdvanced),
    resizeModes: required.length === 0 ? null : required.filter((mode): mode is ResizeMode => mode === 'none' || mode === 'crop-and-scale'),
  }
}

/** Reads a numeric constraint. `isWhole`: of whole numbers, as the standard's ConstrainULong. */
export function rangeOf(wish: ConstrainULong | ConstrainDouble | undefined, isAdvanced = false, isWhole = false): Bounds {
  if (wish === undefined || wish === null) return NO_BOUNDS
  const read = (value: unknown) => {
    const number = value === undefined || value === null ? NaN : Number(value)
    return Number.isFinite(number) ? (isWhole ? Math.trunc(number) : number) : null
  }
  if (typeof wish !== 'object') {
    const value = read(wish)
    return isAdvanced ? { min: value, max: value, ideal: value } : { ...NO_BOUNDS, ideal: value }
  }
  const exact = read(wish.exact)
  if (exact !== null) return { min: exact, max: exact, ideal: exact }
  return { min: read(wish.min), max: read(wish.max), ideal: read(wish.ideal) }
}
