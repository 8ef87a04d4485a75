import { parseHex } from '../../../core/colour/hex.ts'
import { CB_PER_BLUE, CR_PER_RED, LUMA_B, LUMA_G, LUMA_R, luma709 } from '../../../core/colour/luma.ts'
import { placesInCells } from '../../../core/filter/bilinear.ts'
import { CELL_PX, SAMPLE_STEP, SPILT, spillMeter, spillWedge } from '../../../core/steps/spill/reference.ts'
import type { EdgeSpillWork } from '../../../core/steps/spill/index.ts'
import { LivePullPush } from './live-pull-push.ts'
import type { MakeLiveWork } from './live-work.ts'
import { heapPlaces } from './places.ts'

/** Spill replaced by the presenter's own colour near by: EdgeSpill of core/steps/spill/reference.ts, with its loops in WebAssembly. */
export const liveEdgeSpill: MakeLiveWork<EdgeSpillWork> = (tools, { settings }) => {
  const { heap, widthPx, heightPx, allocate } = tools
  if (spillMeter(settings) === null) return { run: (at) => at, dispose: () => undefined }
  const columns = Math.ceil(widthPx / CELL_PX)
  const front = new LivePullPush(tools, columns, Math.ceil(heightPx / CELL_PX))
  const across = heapPlaces(heap, allocate, placesInCells(widthPx, CELL_PX), columns)
  const down = placesInCells(heightPx, CELL_PX)
  const surely = allocate(widthPx + 16)
  const row = allocate(columns * 16 + 64)
  const meter = allocate(32)
  const key = allocate(16)
  const colour = parseHex(settings.colour)
  heap.floats.set(meterOf(colour, spillWedge(settings.reach)), meter.at >> 2)
  heap.floats.set([...colour.map((value) => value * 255), 0], key.at >> 2)
  const keyLuma = settings.keepLuma === 'on' ? luma709(...colour) * 255 : 0

  return {
    run(at) {
      const { kernels } = heap
      front.clear()
      for (let y = 0; y < heightPx; y += SAMPLE_STEP) {
        kernels.unspiltRow(at + y * widthPx * 4, surely.at, widthPx, SPILT, meter.at)
        kernels.gatherRow(at + y * widthPx * 4, surely.at, widthPx, front.sums + Math.floor(y / CELL_PX) * columns * 16)
      }
      if (!front.run()) return at
      const amount = settings.amount * front.trust
      for (let y = 0; y < heightPx; y += 1) {
        const below = front.colours + down.below[y]! * columns * 16
        const above = front.colours + down.above[y]! * columns * 16
        kernels.mixFloats(below, above, row.at, columns * 4, down.share[y]!)
        kernels.edgeSpillRow(at + y * widthPx * 4, widthPx, row.at, across.cells, across.shares, columns - 1, meter.at, key.at, amount, keyLuma)
      }
      return at
    },
    dispose() {
      front.dispose()
      for (const block of [...across.blocks, surely, row, meter, key]) heap.free(block)
    },
  }
}

/**
 * The meter of spill as weights of red, green and blue in codes: along the backdrop's direction, then across it times the
 * wedge. Differences to luma are linear, so the meter is the first sum less the size of the second.
 */
function meterOf([red, green, blue]: readonly [number, number, number], wedge: number): readonly number[] {
  const luma = luma709(red, green, blue)
  const cb = (blue - luma) * CB_PER_BLUE
  const cr = (red - luma) * CR_PER_RED
  const scale = 1 / (255 * (cb * cb + cr * cr))
  const weights = (ofBlue: number, ofRed: number) => [ofRed - LUMA_R * (ofRed + ofBlue), -LUMA_G * (ofRed + ofBlue), ofBlue - LUMA_B * (ofRed + ofBlue)]
  return [...weights(cb * CB_PER_BLUE * scale, cr * CR_PER_RED * scale), ...weights(wedge * cr * CB_PER_BLUE * scale, -wedge * cb * CR_PER_RED * scale)]
}
