import type { Plane } from '../../core/picture/float-picture.ts'
import type { Picture, RgbaPicture } from '../../core/picture/picture.ts'
import type { StepCall } from '../../core/steps/index.ts'
import type { Heap } from './heap.ts'
import { Treatments, type ChainResources } from './treatments.ts'

/** What a still's treatment may need beside the picture. */
export interface StillAids {
  readonly resources?: ChainResources
  readonly person?: Plane | null
}

/** Treats one still with the live tables and loops; straight alpha out. A clear pixel is all zero. */
export function treatStill(heap: Heap, picture: Picture, steps: readonly StepCall[], aids: StillAids = {}): RgbaPicture {
  const treat = stillTreater(heap, steps, aids)
  const treated = treat.frame(picture)
  treat.dispose()
  return treated
}

/** Treats picture after picture, as a camera would bring them: work that remembers does. */
export function stillTreater(heap: Heap, steps: readonly StepCall[], aids: StillAids = {}) {
  const treatments = new Treatments(heap)
  if (aids.resources !== undefined) treatments.setResources(aids.resources)
  let version = 0
  return {
    frame(picture: Picture): RgbaPicture {
      version += 1
      const runner = treatments.runner(steps, 'still', picture)
      const pictureAt = treatments.upload('still', { picture, version, isLive: false })
      const byteLength = picture.widthPx * picture.heightPx * 4
      const out = heap.allocate(byteLength + 64)
      treatments.treatInto(runner, picture, pictureAt, out.at, aids.person ?? null, 'straight')
      const data = Uint8Array.from(heap.bytes.subarray(out.at, out.at + byteLength))
      heap.free(out)
      for (let at = 0; at < data.length; at += 4) if (data[at + 3] === 0) data.fill(0, at, at + 4)
      return { format: 'rgba', widthPx: picture.widthPx, heightPx: picture.heightPx, data }
    },
    dispose: () => treatments.dispose(),
  }
}
