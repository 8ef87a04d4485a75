// What one layer that covers the canvas costs by each blend mode, on the processor.
import { blendModes, type BlendName } from '../../core/blend/index.ts'
import { seededRandom } from '../../core/random/seeded.ts'
import { blendRows } from '../../engine/cpu/blends/index.ts'
import { nodeHeap } from '../../server/cli/node-engine.ts'
import { quantile } from './statistics.ts'

const WIDTH = 1280
const HEIGHT = 720
const ROUNDS = 25

export interface BlendFigures {
  /** Median milliseconds of a canvas of 1280 × 720. */
  readonly medianMs: Readonly<Record<BlendName, number>>
  /** The same as multiples of "normal", which is source-over. */
  readonly ratio: Readonly<Record<BlendName, number>>
}

/** A layer of any colours, neither clear nor opaque, over an opaque canvas: nothing can be skipped. The modes take turns. */
export async function benchBlends(say: (text: string) => void): Promise<BlendFigures> {
  say(`blends: ${WIDTH}x${HEIGHT}, ${ROUNDS} rounds of ${blendModes.length} modes`)
  const heap = await nodeHeap()
  const byteLength = WIDTH * HEIGHT * 4
  const [layer, canvas, out] = [heap.allocate(byteLength), heap.allocate(byteLength), heap.allocate(byteLength)]
  fill(heap.bytes.subarray(layer.at, layer.at + byteLength), 180, seededRandom(1))
  fill(heap.bytes.subarray(canvas.at, canvas.at + byteLength), 255, seededRandom(2))
  const rows = blendRows(heap.kernels)
  const times = new Map<BlendName, number[]>(blendModes.map(({ name }) => [name, []]))
  for (let round = 0; round < ROUNDS; round += 1) {
    for (const [name, all] of times) {
      const startMs = performance.now()
      for (let at = 0; at < byteLength; at += WIDTH * 4) rows[name](layer.at + at, canvas.at + at, out.at + at, WIDTH)
      all.push(performance.now() - startMs)
    }
  }
  const medianMs = Object.fromEntries([...times].map(([name, all]) => [name, quantile(all, 0.5)])) as Record<BlendName, number>
  const ratio = Object.fromEntries(Object.entries(medianMs).map(([name, ms]) => [name, ms / medianMs.normal])) as Record<BlendName, number>
  return { medianMs, ratio }
}

/** Premultiplied pixels of one opacity. */
function fill(pixels: Uint8Array, alpha: number, random: () => number): void {
  for (let at = 0; at < pixels.length; at += 1) pixels[at] = at % 4 === 3 ? alpha : Math.floor(random() * (alpha + 1))
}
