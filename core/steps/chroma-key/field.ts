// The key on a cloth whose light changes over the picture.
import { parseHex } from '../../colour/hex.ts'
import { placesInCells } from '../../filter/bilinear.ts'
import { fieldOfPlate, fieldOfSurface, SURFACE_NUMBERS, type GainField } from '../../matte/backdrop.ts'
import { clamp01, type FloatPicture } from '../../picture/float-picture.ts'
import type { ParamsOf, PointFunction, StepContext } from '../step.ts'
import type { chromaKeyParams } from './params.ts'

/** The gains that make the cloth even; null when it is taken for even, or what it was measured by is not there. */
export function fieldFor(params: ParamsOf<typeof chromaKeyParams>, { widthPx, heightPx, picture }: StepContext): GainField | null {
  const key = parseHex(params.colour)
  if (params.backdrop === 'fitted') return params.surface.length === SURFACE_NUMBERS ? fieldOfSurface(params.surface, key, widthPx, heightPx) : null
  if (params.backdrop === 'plate' && params.plate !== '') {
    const plate = picture(params.plate)
    return plate === null ? null : fieldOfPlate(plate, key, widthPx, heightPx)
  }
  return null
}

/**
 * With s the gain at a place: G = clip(s·C) is keyed, and what the key did to its colour is given back
 * at the light of the place: out = clip(C + (key(G) − G) / s).
 */
export function keyOnField(picture: FloatPicture, apply: PointFunction, field: GainField): FloatPicture {
  const { widthPx, heightPx } = picture
  const columns = placesInCells(widthPx, field.cellPx)
  const rows = placesInCells(heightPx, field.cellPx)
  const data = picture.data.slice()
  const pixel = new Float64Array(4)
  for (let y = 0; y < heightPx; y += 1) {
    const top = rows.below[y]! * field.columns
    const bottom = rows.above[y]! * field.columns
    for (let x = 0; x < widthPx; x += 1) {
      const left = columns.below[x]!
      const right = columns.above[x]!
      const upper = field.gains[top + left]! * (1 - rows.share[y]!) + field.gains[bottom + left]! * rows.share[y]!
      const lower = field.gains[top + right]! * (1 - rows.share[y]!) + field.gains[bottom + right]! * rows.share[y]!
      const gain = upper * (1 - columns.share[x]!) + lower * columns.share[x]!
      const at = (y * widthPx + x) * 4
      for (let channel = 0; channel < 3; channel += 1) pixel[channel] = clamp01(data[at + channel]! * gain)
      const [red, green, blue] = pixel as unknown as [number, number, number]
      pixel[3] = data[at + 3]!
      apply(pixel)
      data[at] = clamp01(data[at]! + (pixel[0]! - red) / gain)
      data[at + 1] = clamp01(data[at + 1]! + (pixel[1]! - green) / gain)
      data[at + 2] = clamp01(data[at + 2]! + (pixel[2]! - blue) / gain)
      data[at + 3] = pixel[3]!
    }
  }
  return { ...picture, data }
}
