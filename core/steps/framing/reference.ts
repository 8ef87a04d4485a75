import type { Affine } from '../../composite/affine.ts'
import { sampleBilinear } from '../../picture/bilinear-sample.ts'
import { blankPicture, type FloatPicture, type Plane } from '../../picture/float-picture.ts'
import { overPremultiplied } from '../../picture/premultiply.ts'
import type { ParamsOf } from '../step.ts'
import type { framingParams } from './params.ts'

/** From pixels of the framed picture to pixels of the one that comes in, centres at ½; null when nothing moves. */
export function framingOf(params: ParamsOf<typeof framingParams>, widthPx: number, heightPx: number): Affine | null {
  const { zoom, panX, panY, angle, mirror } = params
  if (zoom === 1 && angle === 0 && mirror === 'off') return null
  const turn = (-angle * Math.PI) / 180
  const cos = Math.cos(turn)
  const sin = Math.sin(turn)
  // Turned by θ, a picture must grow by cos θ + sin θ · (long side / short side) to cover its own frame.
  const cover = Math.abs(cos) + Math.abs(sin) * (Math.max(widthPx, heightPx) / Math.min(widthPx, heightPx))
  const scale = 1 / (zoom * cover)
  const flip = mirror === 'on' ? -1 : 1
  // Turned first, then mirrored: clockwise is what the viewer sees.
  const a = cos * scale * flip
  const b = sin * scale
  const c = -sin * scale * flip
  const d = cos * scale
  // What zooming leaves outside, in half pictures.
  const room = 1 - 1 / zoom
  const centreX = widthPx / 2 + ((panX / 100) * room * widthPx) / 2
  const centreY = heightPx / 2 + ((panY / 100) * room * heightPx) / 2
  return { a, b, c, d, e: centreX - (a * widthPx + c * heightPx) / 2, f: centreY - (b * widthPx + d * heightPx) / 2 }
}

/** The picture moved by `toSource`, sampled bilinearly. */
export function frameReference(picture: FloatPicture, toSource: Affine): FloatPicture {
  return overPremultiplied(picture, (source) => {
    const out = blankPicture(source.widthPx, source.heightPx)
    const sample = new Float64Array(4)
    for (let y = 0; y < out.heightPx; y += 1) {
      for (let x = 0; x < out.widthPx; x += 1) {
        const px = x + 0.5
        const py = y + 0.5
        sampleBilinear(source, toSource.a * px + toSource.c * py + toSource.e, toSource.b * px + toSource.d * py + toSource.f, sample)
        out.data.set(sample, (y * out.widthPx + x) * 4)
      }
    }
    return out
  })
}

/** A mask of the incoming picture, moved along with it. `widthPx` and `heightPx` are those of the picture. */
export function frameMask(mask: Plane, toSource: Affine, widthPx: number, heightPx: number): Plane {
  const out = new Float32Array(mask.widthPx * mask.heightPx)
  const scaleX = widthPx / mask.widthPx
  const scaleY = heightPx / mask.heightPx
  for (let y = 0; y < mask.heightPx; y += 1) {
    for (let x = 0; x < mask.widthPx; x += 1) {
      const px = (x + 0.5) * scaleX
      const py = (y + 0.5) * scaleY
      const sourceX = (toSource.a * px + toSource.c * py + toSource.e) / scaleX - 0.5
      const sourceY = (toSource.b * px + toSource.d * py + toSource.f) / scaleY - 0.5
      out[y * mask.widthPx + x] = sampleMask(mask, sourceX, sourceY)
    }
  }
  return { ...mask, data: out }
}

function sampleMask({ widthPx, heightPx, data }: Plane, x: number, y: number): number {
  const px = Math.min(widthPx - 1, Math.max(0, x))
  const py = Math.min(heightPx - 1, Math.max(0, y))
  const left = Math.floor(px)
  const top = Math.floor(py)
  const right = Math.min(widthPx - 1, left + 1)
  const bottom = Math.min(heightPx - 1, top + 1)
  const upper = data[top * widthPx + left]! * (1 - px + left) + data[top * widthPx + right]! * (px - left)
  const lower = data[bottom * widthPx + left]! * (1 - px + left) + data[bottom * widthPx + right]! * (px - left)
  return upper * (1 - py + top) + lower * (py - top)
}
