import { gaussianTaps } from '../../../core/filter/gaussian.ts'
import { Islands } from '../../../core/matte/islands.ts'
import { levelled } from '../../../core/matte/levels.ts'
import type { MatteEdgeWork } from '../../../core/steps/matte-edge/index.ts'
import { FinePlanes, fineTaps } from './fine-plane.ts'
import { LiveEdges } from './live-edges.ts'
import type { MakeLiveWork } from './live-work.ts'

/** Cleans the matte's edge; see core/steps/matte-edge/reference.ts for what is done in which order. */
export const liveMatteEdge: MakeLiveWork<MatteEdgeWork> = (tools, { settings }) => {
  const { heap, widthPx, heightPx, allocate } = tools
  const { black, white, detail, choke, feather, specks, holes } = settings
  const edges = detail > 0 ? new LiveEdges(tools) : null
  const islands = specks > 0 || holes > 0 ? new Islands(widthPx, heightPx) : null
  const levels = allocate(256)
  for (let code = 0; code < 256; code += 1) heap.bytes[levels.at + code] = Math.round(levelled(code / 255, black, white) * 255)
  const hasLevels = black > 0 || white < 1
  const planes = choke !== 0 || feather > 0 ? new FinePlanes(heap, allocate, widthPx, heightPx, 4) : null
  const taps = fineTaps(gaussianTaps(Math.max(0.1, feather)))
  const tapsBlock = allocate(taps.byteLength)
  new Int16Array(heap.bytes.buffer, tapsBlock.at, taps.length).set(taps)
  const count = widthPx * heightPx

  function spread(plane: number): number {
    if (planes === null || choke === 0) return plane
    const size = Math.abs(choke)
    const whole = Math.floor(size)
    const share = Math.round((size - whole) * 32767)
    if (whole > 0) planes.extreme(plane, 1, 2, whole, choke > 0)
    const inner = whole > 0 ? 2 : plane
    if (share === 0) return inner
    planes.extreme(plane, 1, 3, whole + 1, choke > 0)
    for (let y = 0; y < heightPx; y += 1) heap.kernels.mixFine(planes.row(inner, y), planes.row(3, y), planes.row(inner, y), widthPx, share)
    return inner
  }

  return {
    run(at) {
      const { kernels } = heap
      const isSolved = edges?.solve(at, { black, white, amount: detail }, levels.at) ?? false
      if (!isSolved && hasLevels) kernels.alphaTable(at, count, levels.at)
      islands?.clean(heap.bytes.subarray(at, at + count * 4), 3, 4, 255, specks, holes)
      if (planes === null) return at
      for (let y = 0; y < heightPx; y += 1) kernels.alphaToFine(at + y * widthPx * 4, planes.row(0, y), widthPx)
      const result = spread(0)
      if (feather > 0) planes.blur(result, 1, tapsBlock.at, (taps.length - 1) / 2)
      for (let y = 0; y < heightPx; y += 1) kernels.fineToAlpha(planes.row(result, y), at + y * widthPx * 4, widthPx)
      return at
    },
    dispose() {
      planes?.dispose()
      edges?.dispose()
      heap.free(levels)
      heap.free(tapsBlock)
    },
  }
}
