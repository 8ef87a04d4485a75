// What decodeI420Row (kernels/coded.ts) must know of a coding, as it lies in the heap.
import { ycbcrCoding, type YcbcrMatrix, type YcbcrRange } from '../../core/colour/ycbcr.ts'
import type { Block, Heap } from './heap.ts'

/** 1 is 2¹³: the largest share, 2.12, still fits a signed half word. */
const ONE = 1 << 13
const HALF_WORDS = 56

/** One block for each coding that was met. */
export class CodingShares {
  readonly #heap: Heap
  readonly #known: { readonly matrix: YcbcrMatrix; readonly range: YcbcrRange; readonly block: Block }[] = []

  constructor(heap: Heap) {
    this.#heap = heap
  }

  /** Where the shares of a coding lie. Asked for with every row. */
  at(matrix: YcbcrMatrix, range: YcbcrRange): number {
    for (const known of this.#known) if (known.matrix === matrix && known.range === range) return known.block.at
    const block = this.#heap.allocate(HALF_WORDS * 2)
    this.#known.push({ matrix, range, block })
    writeShares(this.#heap, block.at, matrix, range)
    return block.at
  }

  dispose(): void {
    for (const { block } of this.#known) this.#heap.free(block)
    this.#known.length = 0
  }
}

/** Shares of luma and difference side by side, four times each; then what is added to red, green and blue, a half for rounding with it. */
function writeShares(heap: Heap, at: number, matrix: YcbcrMatrix, range: YcbcrRange): void {
  const { kr, kb, lumaScale, lumaOffset, chromaScale } = ycbcrCoding(matrix, range)
  const kg = 1 - kr - kb
  const luma = 255 / lumaScale
  const redByCr = (2 * (1 - kr) * 255) / chromaScale
  const blueByCb = (2 * (1 - kb) * 255) / chromaScale
  const greenByCr = (-kr / kg) * redByCr
  const greenByCb = (-kb / kg) * blueByCb
  const halfWords = new Int16Array(heap.bytes.buffer, at, 32)
  const pairs = [
    [luma, redByCr],
    [luma, blueByCb],
    [luma, greenByCr],
    [0, greenByCb],
  ] as const
  pairs.forEach((pair, row) => {
    for (let i = 0; i < 8; i += 1) halfWords[row * 8 + i] = Math.round(pair[i % 2]! * ONE)
  })
  const more = new Int32Array(heap.bytes.buffer, at + 64, 12)
  const differences = [redByCr, greenByCr + greenByCb, blueByCb]
  differences.forEach((share, colour) => more.fill(Math.round((-luma * lumaOffset - share * 128 + 0.5) * ONE), colour * 4, colour * 4 + 4))
}
