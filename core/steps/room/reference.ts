import { gaussianTaps, convolvePlane } from '../../filter/gaussian.ts'
import { placesBetween } from '../../filter/bilinear.ts'
import { guideMask, personOpacity, type GuidedMask } from '../../matte/person-mask.ts'
import { blankPicture, type FloatPicture, type Plane } from '../../picture/float-picture.ts'
import { halve } from '../../picture/halve.ts'
import type { RgbaPicture } from '../../picture/picture.ts'
import type { RoomSettings } from './params.ts'

/** How far the edge value may move the border, in guided opacity. */
export const EDGE_REACH = 0.3
/** A place that shows less of the room than this has no colour of it to blur. */
export const LEAST_ROOM = 1e-3

/** Blur of a softness, σ in pixels of a picture `heightPx` high: 3 softens a wall calendar beyond reading, 6 leaves only lights. */
export function blurSigma(softness: number, heightPx: number): number {
  return (softness * (1.2 + 0.9 * softness) * heightPx) / 720
}

/** Halvings that leave a blur of 1¼ to 2½ pixels: finer work could not be seen. */
export function blurHalvings(sigma: number): number {
  return Math.max(0, Math.floor(Math.log2(Math.max(1, sigma / 1.25))))
}

/** The mask with its border moved. */
function movedMask(mask: GuidedMask, edge: number): GuidedMask {
  return edge === 0 ? mask : { ...mask, offset: mask.offset.map((value) => value + edge * EDGE_REACH) }
}

/** Without a mask nothing counts as the person, so that a room is never shown by mistake. */
export function roomReference(picture: FloatPicture, person: Plane | null, settings: RoomSettings): FloatPicture {
  const { widthPx, heightPx } = picture
  const opacity =
    person === null
      ? new Float64Array(widthPx * heightPx)
      : personOpacity(movedMask(guideMask(person, picture.data, 1, widthPx, heightPx), settings.edge), picture).data
  const data = picture.data.slice()
  if (settings.effect === 'hidden') {
    for (let i = 0; i < opacity.length; i += 1) data[i * 4 + 3] = data[i * 4 + 3]! * opacity[i]!
    return { ...picture, data }
  }
  const room = settings.effect === 'softened' ? softenedRoom(picture, opacity, settings.softness) : stretched(settings.picture, widthPx, heightPx)
  for (let i = 0; i < opacity.length; i += 1) {
    const alpha = opacity[i]!
    for (let channel = 0; channel < 3; channel += 1) data[i * 4 + channel] = data[i * 4 + channel]! * alpha + room.data[i * 4 + channel]! * (1 - alpha)
  }
  return { ...picture, data }
}

/** The room blurred, weighted by how surely it is the room, so that the person does not glow into it. */
function softenedRoom(picture: FloatPicture, opacity: Float64Array | Float32Array, softness: number): FloatPicture {
  const { widthPx, heightPx } = picture
  const sigma = blurSigma(softness, heightPx)
  const halvings = blurHalvings(sigma)
  let small: FloatPicture = blankPicture(widthPx, heightPx)
  for (let i = 0; i < opacity.length; i += 1) {
    const weight = 1 - opacity[i]!
    for (let channel = 0; channel < 3; channel += 1) small.data[i * 4 + channel] = picture.data[i * 4 + channel]! * weight
    small.data[i * 4 + 3] = weight
  }
  for (let i = 0; i < halvings; i += 1) small = halve(small)
  const taps = gaussianTaps(Math.max(0.3, sigma / 2 ** halvings))
  const blurred = new Float64Array(small.data.length)
  for (let channel = 0; channel < 4; channel += 1) {
    const plane = convolvePlane({ widthPx: small.widthPx, heightPx: small.heightPx, data: small.data.filter((_, i) => (i & 3) === channel) }, taps)
    plane.data.forEach((value, i) => (blurred[i * 4 + channel] = value))
  }
  return enlarged({ ...small, data: blurred }, picture)
}

/** A blurred picture at full size, divided by its weight; where that is nothing, the picture itself. */
function enlarged(small: FloatPicture, original: FloatPicture): FloatPicture {
  const { widthPx, heightPx } = original
  const out = blankPicture(widthPx, heightPx)
  const columns = placesBetween(widthPx, small.widthPx)
  const rows = placesBetween(heightPx, small.heightPx)
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      const sample = (channel: number) => {
        const at = (row: number, column: number) => small.data[(row * small.widthPx + column) * 4 + channel]!
        const share = columns.share[x]!
        const upper = at(rows.below[y]!, columns.below[x]!) * (1 - share) + at(rows.below[y]!, columns.above[x]!) * share
        const lower = at(rows.above[y]!, columns.below[x]!) * (1 - share) + at(rows.above[y]!, columns.above[x]!) * share
        return upper * (1 - rows.share[y]!) + lower * rows.share[y]!
      }
      const weight = sample(3)
      const i = (y * widthPx + x) * 4
      for (let channel = 0; channel < 3; channel += 1) out.data[i + channel] = weight < LEAST_ROOM ? original.data[i + channel]! : sample(channel) / weight
    }
  }
  return out
}

/** A picture that fills another size: scaled to cover, centred, nearest pixel (a wall behind a person needs no more). */
export function stretched(picture: RgbaPicture | null, widthPx: number, heightPx: number): FloatPicture {
  const out = blankPicture(widthPx, heightPx)
  if (picture === null) return out
  const scale = Math.min(picture.widthPx / widthPx, picture.heightPx / heightPx)
  const offsetX = (picture.widthPx - widthPx * scale) / 2
  const offsetY = (picture.heightPx - heightPx * scale) / 2
  for (let y = 0; y < heightPx; y += 1) {
    const sourceY = Math.min(picture.heightPx - 1, Math.floor(offsetY + (y + 0.5) * scale))
    for (let x = 0; x < widthPx; x += 1) {
      const sourceX = Math.min(picture.widthPx - 1, Math.floor(offsetX + (x + 0.5) * scale))
      const from = (sourceY * picture.widthPx + sourceX) * 4
      const at = (y * widthPx + x) * 4
      for (let channel = 0; channel < 3; channel += 1) out.data[at + channel] = picture.data[from + channel]! / 255
      out.data[at + 3] = 1
    }
  }
  return out
}
