import type { Picture, RgbaPicture } from '../../core/picture/picture.ts'
import type { StepCall } from '../../core/steps/index.ts'
import type { Heap } from './heap.ts'
import { Treatments } from './treatments.ts'

/** Treats one still with the live tables; straight alpha out. A clear pixel is all zero. */
export function treatStill(heap: Heap, picture: Picture, steps: readonly StepCall[]): RgbaPicture {
  const treatments = new Treatments(heap)
  const opaque = picture.format === 'rgba' ? { ...picture, data: withoutAlpha(picture.data) } : picture
  const { chain, memo } = treatments.bake(steps, 'still', opaque, 'straight')
  const pictureAt = treatments.upload('still', { picture: opaque, version: 0, isLive: false })
  const line = heap.allocate((picture.widthPx + 64) * 4)
  const data = new Uint8Array(picture.widthPx * picture.heightPx * 4)
  for (let y = 0; y < picture.heightPx; y += 1) {
    treatments.rows.treat(opaque, pictureAt, memo, chain.keep, y, line.at)
    data.set(heap.bytes.subarray(line.at, line.at + picture.widthPx * 4), y * picture.widthPx * 4)
  }
  heap.free(line)
  treatments.dispose()
  for (let at = 0; at < data.length; at += 4) {
    if (picture.format === 'rgba') data[at + 3] = Math.round((data[at + 3]! * picture.data[at + 3]!) / 255)
    if (data[at + 3] === 0) data.fill(0, at, at + 4)
  }
  return { format: 'rgba', widthPx: picture.widthPx, heightPx: picture.heightPx, data }
}

function withoutAlpha(data: RgbaPicture['data']): Uint8Array {
  const opaque = Uint8Array.from(data)
  for (let at = 3; at < opaque.length; at += 4) opaque[at] = 255
  return opaque
}
