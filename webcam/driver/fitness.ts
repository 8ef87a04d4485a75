// Chooses size and rate of a track: W3C Media Capture and Streams §5 SelectSettings, over every size that cropping and shrinking can give.
import { ANY_BOUNDS, type Bounds, type PictureBounds, type PictureFormat, type PictureWish, type ResizeMode } from './constraints.ts'

/** Least pictures a second that a track gives. */
export const LEAST_FRAME_RATE = 1
/** Whole pixels cannot have every shape: ratios nearer than this are the same (for sizes from a few hundred pixels on). */
const ASPECT_SLACK = 0.005
/** Whole pixels make sizes that are as near to an aim differ by so much of a distance. */
const ROUNDING = 0.002

export type SettingName = 'width' | 'height' | 'aspectRatio' | 'frameRate' | 'resizeMode'

/** Sizes as ranges: what a set of constraints leaves of those that there are. */
interface Region {
  readonly width: readonly [number, number]
  readonly height: readonly [number, number]
  readonly aspect: readonly [number, number]
}

interface Size {
  readonly widthPx: number
  readonly heightPx: number
}

/** The form in which a picture of `source` goes to a track with `wish`: never larger, whole wherever the page's requirements allow. */
export function formatFor(wish: PictureWish, source: PictureFormat): PictureFormat {
  const bounds = withAdvanced(wish, source)
  const frameRate = clamp(bounds.frameRate.ideal ?? source.frameRate, bounds.frameRate.min ?? 0, Math.min(bounds.frameRate.max ?? Infinity, source.frameRate))
  return { ...sizeFor(bounds, source, wish.prefersCrop), frameRate }
}

/** How that form comes about, in the standard's word. */
export function resizeModeOf({ widthPx, heightPx }: Size, source: PictureFormat): ResizeMode {
  return widthPx === source.widthPx && heightPx === source.heightPx ? 'none' : 'crop-and-scale'
}

/** The first required property that no form of `source` meets; null when all are met. */
export function unmetSetting({ required }: PictureWish, source: PictureFormat): SettingName | null {
  const alone = (name: 'width' | 'height' | 'aspectRatio') => regionOf({ ...ANY_BOUNDS, [name]: required[name], resizeModes: required.resizeModes }, source)
  for (const name of ['width', 'height'] as const) if (alone(name) === null) return name
  if (!isRateMet(required.frameRate, source)) return 'frameRate'
  if (required.resizeModes?.length === 0) return 'resizeMode'
  return regionOf(required, source) === null ? (alone('aspectRatio') === null ? 'aspectRatio' : 'width') : null
}

/** The required bounds, narrowed by every advanced set that can be met together with those before it. */
function withAdvanced({ required, advanced }: PictureWish, source: PictureFormat): PictureBounds {
  return advanced.reduce((bounds, set) => {
    const both = meet(bounds, set)
    return regionOf(both, source) !== null && isRateMet(both.frameRate, source) && both.resizeModes?.length !== 0 ? both : bounds
  }, required)
}

function meet(first: PictureBounds, second: PictureBounds): PictureBounds {
  const both = (a: Bounds, b: Bounds): Bounds => ({
    min: a.min === null ? b.min : b.min === null ? a.min : Math.max(a.min, b.min),
    max: a.max === null ? b.max : b.max === null ? a.max : Math.min(a.max, b.max),
    ideal: a.ideal ?? b.ideal,
  })
  const { resizeModes: modes } = second
  return {
    width: both(first.width, second.width),
    height: both(first.height, second.height),
    aspectRatio: both(first.aspectRatio, second.aspectRatio),
    frameRate: both(first.frameRate, second.frameRate),
    resizeModes: first.resizeModes === null ? modes : modes === null ? first.resizeModes : first.resizeModes.filter((mode) => modes.includes(mode)),
  }
}

function isRateMet({ min, max }: Bounds, { frameRate }: PictureFormat): boolean {
  return (min ?? 0) <= frameRate && (max ?? Infinity) >= LEAST_FRAME_RATE && (min ?? 0) <= (max ?? Infinity)
}

/** What bounds leave of the sizes that there are; null for nothing. */
function regionOf(bounds: PictureBounds, source: PictureFormat): Region | null {
  const isFixed = bounds.resizeModes !== null && !bounds.resizeModes.includes('crop-and-scale')
  const range = ({ min, max }: Bounds, whole: number) => [Math.max(min ?? 1, isFixed ? whole : 1), Math.min(max ?? whole, whole)] as const
  const width = range(bounds.width, source.widthPx)
  const height = range(bounds.height, source.heightPx)
  const { min, max } = bounds.aspectRatio
  const aspect = [Math.max(0, (min ?? 0) - ASPECT_SLACK), (max ?? Infinity) + ASPECT_SLACK] as const
  const isEmpty = width[0] > width[1] || height[0] > height[1] || (min ?? 0) > (max ?? Infinity)
  if (isEmpty || width[1] / height[0] < aspect[0] || width[0] / height[1] > aspect[1]) return null
  return { width, height, aspect }
}

function sizeFor(bounds: PictureBounds, source: PictureFormat, prefersCrop: boolean): Size {
  // A source that became too small since the page asked: what it has, within what the page can take.
  const region =
    regionOf(bounds, source) ?? regionOf({ ...ANY_BOUNDS, width: { ...bounds.width, min: null }, height: { ...bounds.height, min: null } }, source)!
  const whole = wholeSize(region, bounds, source)
  if (whole !== null && !prefersCrop) return whole
  const cropped = croppedSizes(region, bounds, source)
  const shaped = cropped.filter(({ widthPx, heightPx }) => widthPx / heightPx >= region.aspect[0] && widthPx / heightPx <= region.aspect[1])
  // Of a few pixels no shape is exact.
  const candidates = [...(whole === null ? [] : [whole]), ...(shaped.length === 0 ? cropped : shaped)]
  return candidates.reduce((best, next) => (isBetter(next, best, bounds, source) ? next : best))
}

/** The best size of the source's own shape within a region, of which the smaller one when two are as near to the aims. */
function wholeSize({ width, height, aspect }: Region, bounds: PictureBounds, source: PictureFormat): Size | null {
  const shape = source.widthPx / source.heightPx
  if (shape < aspect[0] || shape > aspect[1]) return null
  const least = Math.max(width[0] / source.widthPx, height[0] / source.heightPx)
  const most = Math.min(width[1] / source.widthPx, height[1] / source.heightPx)
  // Half a pixel, since sizes are whole numbers.
  if (least > most + 0.5 / Math.max(source.widthPx, source.heightPx)) return null
  const at = (scale: number): Size => ({
    widthPx: clamp(Math.round(source.widthPx * scale), width[0], width[1]),
    heightPx: clamp(Math.round(source.heightPx * scale), height[0], height[1]),
  })
  const aims = [
    bounds.width.ideal === null ? null : bounds.width.ideal / source.widthPx,
    bounds.height.ideal === null ? null : bounds.height.ideal / source.heightPx,
  ].filter((scale) => scale !== null)
  if (aims.length === 0) return at(most)
  const sizes = aims.map((scale) => Math.max(least, Math.min(most, scale))).sort((first, second) => first - second)
  return sizes.map(at).reduce((best, next) => (distanceOf(next, bounds) < distanceOf(best, bounds) - ROUNDING ? next : best))
}

/** Sizes at the corners of a region, at its aims, and where its shape is the source's: the best is among them. */
function croppedSizes({ width, height }: Region, bounds: PictureBounds, source: PictureFormat): Size[] {
  const shapes = [bounds.aspectRatio.min, bounds.aspectRatio.max, bounds.aspectRatio.ideal, source.widthPx / source.heightPx].filter(
    (shape): shape is number => shape !== null && shape > 0 && Number.isFinite(shape),
  )
  const within = (value: number | null, [least, most]: readonly [number, number]) => (value === null ? [] : [clamp(value, least, most)])
  const heights = [...height, ...within(bounds.height.ideal, height)]
  const widths = [...width, ...within(bounds.width.ideal, width), ...heights.flatMap((each) => shapes.flatMap((shape) => within(each * shape, width)))]
  const { min: narrowest, max: widest } = bounds.aspectRatio
  return widths.flatMap((widthPx) => {
    const least = Math.max(height[0], widest === null ? 0 : widthPx / widest)
    const most = Math.min(height[1], narrowest === null || narrowest <= 0 ? Infinity : widthPx / narrowest)
    if (least > most + 0.5) return []
    const range = [Math.min(least, most), most] as const
    return [...range, ...within(bounds.height.ideal, range), ...shapes.flatMap((shape) => within(widthPx / shape, range))].map((heightPx) => ({
      widthPx: clamp(Math.round(widthPx), Math.ceil(width[0]), Math.floor(width[1])),
      heightPx: clamp(Math.round(heightPx), Math.ceil(height[0]), Math.floor(height[1])),
    }))
  })
}

/** Nearer to the aims; of two that are as near, the one that keeps more of the picture, then the larger. */
function isBetter(next: Size, best: Size, bounds: PictureBounds, source: PictureFormat): boolean {
  const nearer = distanceOf(best, bounds) - distanceOf(next, bounds)
  if (Math.abs(nearer) > 1e-9) return nearer > 0
  const more = keptOf(next, source) - keptOf(best, source)
  if (Math.abs(more) > 1e-9) return more > 0
  return next.widthPx * next.heightPx > best.widthPx * best.heightPx
}

/** The standard's fitness distance (§5.2): of each aim, how far off it is as a share of the larger. */
function distanceOf({ widthPx, heightPx }: Size, { width, height, aspectRatio }: PictureBounds): number {
  const away = (actual: number, { ideal }: Bounds) =>
    ideal === null || actual === ideal ? 0 : Math.abs(actual - ideal) / Math.max(Math.abs(actual), Math.abs(ideal))
  return away(widthPx, width) + away(heightPx, height) + away(widthPx / heightPx, aspectRatio)
}

/** Which share of the source is seen in a picture of that shape. */
function keptOf({ widthPx, heightPx }: Size, source: PictureFormat): number {
  const ratio = (widthPx * source.heightPx) / (heightPx * source.widthPx)
  return Math.min(ratio, 1 / ratio)
}

const clamp = (value: number, least: number, most: number) => Math.min(Math.max(value, least), Math.max(least, most))
