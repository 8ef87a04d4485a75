import { gaussianTaps } from '../../../core/filter/gaussian.ts'
import type { SharpenWork } from '../../../core/steps/sharpen/index.ts'
import { fineTaps } from './fine-plane.ts'
import type { MakeLiveWork } from './live-work.ts'

/** Full luma in 1/64 codes. */
const FINE = 255 * 64
/** Full opacity of shares. */
const SHARE = 16383
/** Room at both sides of a row for the widest filter. */
const MARGIN = 64
/** Pixels done at once. */
const GROUP = 8

/**
 * Unsharp mask on luma, neighbours counted by their opacity (core/steps/sharpen/reference.ts). Rows pass through a ring that stays in
 * the processor's cache. Opaque rows need no weights; of the others only what is not clear is worked on.
 * One pass over the rows, whose parts share their buffers.
 */
// eslint-disable-next-line max-lines-per-function
export const liveSharpen: MakeLiveWork<SharpenWork> = ({ heap, widthPx, heightPx, allocate }, { settings }) => {
  const taps = fineTaps(gaussianTaps(settings.radius))
  const radius = (taps.length - 1) / 2
  const tapsBlock = allocate(taps.byteLength)
  new Int16Array(heap.bytes.buffer, tapsBlock.at, taps.length).set(taps)
  const stride = (widthPx + 2 * MARGIN) * 2
  const ringSize = taps.length
  const ring = () => allocate(stride * ringSize + MARGIN * 2)
  const line = () => allocate(stride + MARGIN * 2)
  const [luma, across, sharesAcross] = [ring(), ring(), ring()]
  const [weighted, shares, blurred, sharesBlurred, shared] = [line(), line(), line(), line(), line()]
  const rows = allocate(4 * ringSize)
  const amount = Math.round(settings.amount * 8192)
  const threshold = Math.round(settings.threshold * FINE)
  const place = (block: { readonly at: number }, y: number) => block.at + MARGIN * 2 + (y % ringSize) * stride
  const startOf = (block: { readonly at: number }) => block.at + MARGIN * 2
  /** What each row of the ring is: wholly opaque, and the columns that are not clear. */
  const isOpaque = new Uint8Array(ringSize)
  const from = new Int32Array(ringSize)
  const to = new Int32Array(ringSize)
  /** Whether an opaque row has its shares written out. */
  const hasShares = new Uint8Array(ringSize)

  function prepare(pixels: number, y: number): void {
    const { kernels, bytes } = heap
    const slot = y % ringSize
    const span = kernels.alphaSpan(pixels, widthPx)
    isOpaque[slot] = span === -1 ? 1 : 0
    hasShares[slot] = 0
    if (span === -1) {
      from[slot] = 0
      to[slot] = widthPx
      kernels.lumaRow(pixels, place(luma, y), widthPx)
      kernels.blurAcross(place(luma, y), place(across, y), widthPx, tapsBlock.at, radius)
      return
    }
    bytes.fill(0, place(across, y), place(across, y) + widthPx * 2)
    bytes.fill(0, place(sharesAcross, y), place(sharesAcross, y) + widthPx * 2)
    from[slot] = 0
    to[slot] = 0
    if (span === 0) return
    // Wide enough that the filter begins and ends on what is clear, or on the border.
    const left = Math.floor(Math.max(0, (span & 0xffff) - radius - 1) / GROUP) * GROUP
    const right = Math.min(widthPx, Math.ceil(((span >>> 16) + radius + 1) / GROUP) * GROUP)
    from[slot] = left
    to[slot] = right
    const count = right - left
    const at = left * 2
    kernels.lumaRow(pixels + left * 4, place(luma, y) + at, count)
    kernels.weighRow(pixels + left * 4, place(luma, y) + at, startOf(weighted) + at, startOf(shares) + at, count)
    kernels.blurAcross(startOf(weighted) + at, place(across, y) + at, count, tapsBlock.at, radius)
    kernels.blurAcross(startOf(shares) + at, place(sharesAcross, y) + at, count, tapsBlock.at, radius)
  }

  /** Lists the rows about `y`, beginning at a column; says whether all of them are opaque. */
  function listRows(block: { readonly at: number }, y: number, column: number): boolean {
    let areOpaque = true
    for (let k = -radius; k <= radius; k += 1) {
      const row = y + k < 0 ? 0 : y + k >= heightPx ? heightPx - 1 : y + k
      heap.words[(rows.at >> 2) + k + radius] = place(block, row) + column * 2
      if (isOpaque[row % ringSize] === 0) areOpaque = false
    }
    return areOpaque
  }

  function fillShares(y: number): void {
    for (let k = -radius; k <= radius; k += 1) {
      const row = y + k < 0 ? 0 : y + k >= heightPx ? heightPx - 1 : y + k
      const slot = row % ringSize
      if (isOpaque[slot] === 0 || hasShares[slot] === 1) continue
      const start = place(sharesAcross, row) >> 1
      new Uint16Array(heap.bytes.buffer).fill(SHARE, start, start + widthPx + GROUP)
      hasShares[slot] = 1
    }
  }

  function sharpen(pixels: number, y: number): void {
    const { kernels } = heap
    const left = from[y % ringSize]!
    const count = to[y % ringSize]! - left
    if (count <= 0) return
    const at = left * 2
    const areOpaque = listRows(across, y, left)
    kernels.blurDown(rows.at, startOf(blurred) + at, count, tapsBlock.at, radius)
    let own = place(luma, y) + at
    if (!areOpaque) {
      fillShares(y)
      listRows(sharesAcross, y, left)
      kernels.blurDown(rows.at, startOf(sharesBlurred) + at, count, tapsBlock.at, radius)
      kernels.shareRow(own, startOf(sharesBlurred) + at, startOf(shared) + at, count)
      own = startOf(shared) + at
    }
    kernels.sharpenRow(pixels + left * 4, own, startOf(blurred) + at, pixels + left * 4, count, amount, threshold)
  }

  return {
    run(at) {
      const rowBytes = widthPx * 4
      for (let y = -radius; y < heightPx; y += 1) {
        const next = y + radius
        if (next < heightPx) prepare(at + next * rowBytes, next)
        if (y >= 0) sharpen(at + y * rowBytes, y)
      }
      return at
    },
    dispose() {
      for (const block of [tapsBlock, luma, across, sharesAcross, weighted, shares, blurred, sharesBlurred, shared, rows]) heap.free(block)
    },
  }
}
