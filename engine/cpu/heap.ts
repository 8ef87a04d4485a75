// One WebAssembly memory for everything the CPU executor touches. It is large and never grows, so
// that views stay valid; the system gives it real pages only where it is written.

/** Where the codes of a 4:2:0 row lie, which of its pixels are wanted, and where they go. */
type CodedRow = [
  luma: number,
  cbNear: number,
  cbSide: number,
  crNear: number,
  crSide: number,
  left: number,
  right: number,
  chromaWidth: number,
  scratch: number,
  line: number,
]

/** The compiled pixel loops; see kernels/kernels.ts. */
export interface Kernels {
  treatI420Row(table: number, ...row: [...CodedRow, missing: number]): number
  decodeI420Row(shares: number, ...row: CodedRow): void
  treatRgbaRow(table: number, source: number, count: number, line: number, missing: number): number
  blendRow(line: number, base: number, out: number, count: number): void
  blendMaskedRow(line: number, base: number, out: number, count: number, mask: number): void
  mixRow(line: number, base: number, out: number, count: number, weight: number): void
  scaleRow(upper: number, lower: number, rowWeight: number, first: number, last: number, mixed: number, columns: number, count: number, line: number): void
  turnRow(pixels: number, width: number, height: number, startX: number, startY: number, stepX: number, stepY: number, count: number, line: number): void
  shrinkRow(table: number, rows: number, first: number, last: number, mixed: number, columns: number, pairs: number, count: number, line: number): void
  turnShrunkRow(
    pixels: number,
    width: number,
    height: number,
    startX: number,
    startY: number,
    stepX: number,
    stepY: number,
    across: number,
    down: number,
    count: number,
    line: number,
  ): void
  halve(source: number, sourceWidth: number, sourceHeight: number, out: number, width: number, height: number): void
  fillRow(out: number, count: number, value: number): void
  alphaToGrey(source: number, out: number, count: number): void
  copyRows(from: number, to: number, widthBytes: number, strideBytes: number, height: number): void
  // From here on: kernels/spatial.ts.
  treatStraightRow(table: number, source: number, count: number, line: number, missing: number): number
  fillStraight(table: number, missing: number, count: number): void
  premultiplyRow(source: number, out: number, count: number): void
  unpremultiplyRow(source: number, out: number, count: number): void
  fadeRow(pixels: number, count: number, across: number, down: number): void
  fieldKeyRow(pixels: number, out: number, count: number, table: number, missing: number, gains: number): number
  steadyRow(pixels: number, before: number, bytes: number, time: number, noise: number): void
  sigmaRow(above: number, row: number, below: number, out: number, count: number, space: number, limit: number): void
  lumaRow(pixels: number, out: number, count: number): void
  alphaToFine(pixels: number, out: number, count: number): void
  alphaSpan(pixels: number, count: number): number
  weighRow(pixels: number, luma: number, weighted: number, shares: number, count: number): void
  shareRow(luma: number, shares: number, out: number, count: number): void
  fineToAlpha(fine: number, pixels: number, count: number): void
  blurAcross(row: number, out: number, count: number, taps: number, radius: number): void
  blurDown(rows: number, out: number, count: number, taps: number, radius: number): void
  sharpenRow(pixels: number, luma: number, blurred: number, out: number, count: number, amount: number, threshold: number): void
  extremeAcross(row: number, out: number, count: number, radius: number, isLargest: boolean): void
  extremeDown(rows: number, out: number, count: number, radius: number, isLargest: boolean): void
  mixFine(a: number, b: number, out: number, count: number, share: number): void
  alphaTable(pixels: number, count: number, table: number): void
  personRow(
    pixels: number,
    out: number,
    gains: number,
    offsets: number,
    starts: number,
    shares: number,
    kinds: number,
    lastCell: number,
    low: number,
    high: number,
  ): void
  momentCells(sums: number, scales: number, mask: number, out: number, count: number): void
  boxCells(cells: number, spare: number, sums: number, width: number, height: number, radius: number): void
  fitCells(cells: number, count: number, epsilon: number): void
  splitCells(cells: number, gains: number, offsets: number, count: number, edge: number): void
  addLumaRow(pixels: number, count: number, cells: number, sums: number): void
  keyOpacityRow(
    pixels: number,
    count: number,
    gains: number,
    alongCb: number,
    alongCr: number,
    acrossCb: number,
    acrossCr: number,
    low: number,
    slope: number,
  ): void
  mixFloats(a: number, b: number, out: number, count: number, share: number): void
  roomRow(pixels: number, mask: number, out: number, count: number): void
  blurSmall(source: number, width: number, height: number, taps: number, radius: number, across: number, out: number): void
  fineRow(floats: number, out: number, count: number): void
  softenRow(pixels: number, mask: number, room: number, fine: number, starts: number, shares: number, fineShares: number, lastCell: number): void
  halveRoomRow(upper: number, lower: number, upperMask: number, lowerMask: number, out: number, count: number): void
  replaceRow(pixels: number, mask: number, other: number, out: number, count: number): void
  hideRow(pixels: number, mask: number, out: number, count: number): void
  // From here on: kernels/edges.ts.
  unspiltRow(pixels: number, surely: number, count: number, spilt: number, meter: number): void
  edgeSpillRow(
    pixels: number,
    count: number,
    own: number,
    cells: number,
    shares: number,
    lastCell: number,
    meter: number,
    key: number,
    amount: number,
    keyLuma: number,
  ): void
  pullCells(fine: number, fineColumns: number, fineRows: number, coarse: number): void
  topCell(sums: number, colours: number): boolean | number
  pushCells(sums: number, columns: number, rows: number, coarse: number, colours: number): void
  alphaBytes(pixels: number, out: number, count: number): void
  extremeOfThree(row: number, out: number, count: number, isLargest: boolean): void
  surelyRow(above: number, row: number, below: number, out: number, count: number, isFront: boolean): void
  gatherRow(pixels: number, surely: number, count: number, sums: number): void
  solveEdgeRow(
    pixels: number,
    back: number,
    inside: number,
    count: number,
    trust: number,
    front: number,
    behind: number,
    cells: number,
    shares: number,
    lastCell: number,
    levels: number,
    black: number,
    white: number,
    rim: number,
    amount: number,
  ): void
  // From here on: kernels/blends.ts.
  blendMultiplyRow(line: number, base: number, out: number, count: number): void
  blendScreenRow(line: number, base: number, out: number, count: number): void
  blendOverlayRow(line: number, base: number, out: number, count: number): void
  blendDarkenRow(line: number, base: number, out: number, count: number): void
  blendLightenRow(line: number, base: number, out: number, count: number): void
  blendHardLightRow(line: number, base: number, out: number, count: number): void
  blendDifferenceRow(line: number, base: number, out: number, count: number): void
  blendExclusionRow(line: number, base: number, out: number, count: number): void
  blendPlusLighterRow(line: number, base: number, out: number, count: number): void
  blendSoftLightRow(line: number, base: number, out: number, count: number): void
  blendColorDodgeRow(line: number, base: number, out: number, count: number): void
  blendColorBurnRow(line: number, base: number, out: number, count: number): void
  blendHueRow(line: number, base: number, out: number, count: number): void
  blendSaturationRow(line: number, base: number, out: number, count: number): void
  blendColorRow(line: number, base: number, out: number, count: number): void
  blendLuminosityRow(line: number, base: number, out: number, count: number): void
  mapBytes(from: number, to: number, count: number, table: number): void
  thinRow(line: number, mask: number, out: number, count: number): void
}

/** A piece of the heap. Whoever allocates it frees it, once. */
export interface Block {
  readonly at: number
  readonly byteLength: number
}

const PAGE_BYTES = 65536
const MEMORY_PAGES = 18000
const ALIGNMENT = 64
/** Kernels may read or write this far past a row. */
const SLACK = 128

/** Called with blocks that leaked: neither freed nor referenced. For development. */
export type OnLeak = (byteLength: number) => void

/** Memory, kernels and a first-fit allocator. */
export class Heap {
  readonly kernels: Kernels
  readonly bytes: Uint8Array<ArrayBuffer>
  readonly words: Uint32Array<ArrayBuffer>
  readonly floats: Float32Array<ArrayBuffer>
  readonly #free: Block[]
  /** Blocks handed out, by where they lie. */
  readonly #used = new Map<number, number>()
  readonly #leaks: FinalizationRegistry<Block> | null
  #usedBytes = 0
  /** Memory from here on has never been handed out, so it is still zero. */
  #freshFrom: number

  private constructor(memory: WebAssembly.Memory, kernels: Kernels, firstFree: number, onLeak: OnLeak | null) {
    this.kernels = kernels
    const buffer = memory.buffer as ArrayBuffer
    this.bytes = new Uint8Array(buffer)
    this.words = new Uint32Array(buffer)
    this.floats = new Float32Array(buffer)
    this.#freshFrom = firstFree
    this.#leaks = onLeak === null ? null : new FinalizationRegistry(({ byteLength }) => onLeak(byteLength))
    this.#free = [{ at: firstFree, byteLength: buffer.byteLength - firstFree }]
  }

  /** Makes a heap from the bytes of kernels.wasm. `onLeak` hears of blocks that were lost without being freed. */
  static async create(wasm: BufferSource, onLeak: OnLeak | null = null): Promise<Heap> {
    const memory = new WebAssembly.Memory({ initial: MEMORY_PAGES, maximum: MEMORY_PAGES })
    const { instance } = await WebAssembly.instantiate(wasm, { env: { memory } })
    return new Heap(memory, instance.exports as unknown as Kernels, PAGE_BYTES, onLeak)
  }

  /** Bytes handed out now; zero after everything is freed. */
  get usedBytes(): number {
    return this.#usedBytes
  }

  /** A block with undefined content. Throws a RangeError when there is no room. */
  allocate(byteLength: number): Block {
    const wanted = Math.ceil((byteLength + SLACK) / ALIGNMENT) * ALIGNMENT
    for (let i = 0; i < this.#free.length; i += 1) {
      const hole = this.#free[i]!
      if (hole.byteLength < wanted) continue
      if (hole.byteLength === wanted) this.#free.splice(i, 1)
      else this.#free[i] = { at: hole.at + wanted, byteLength: hole.byteLength - wanted }
      this.#usedBytes += wanted
      this.#freshFrom = Math.max(this.#freshFrom, hole.at + wanted)
      return this.#hand(hole.at, wanted)
    }
    throw new RangeError(`the picture memory has no room for ${wanted} bytes (${this.#usedBytes} in use)`)
  }

  /** A block of zeros; memory that was never used is not touched. */
  allocateZeroed(byteLength: number): Block {
    const freshFrom = this.#freshFrom
    const block = this.allocate(byteLength)
    if (block.at < freshFrom) this.bytes.fill(0, block.at, Math.min(freshFrom, block.at + block.byteLength))
    return block
  }

  #hand(at: number, byteLength: number): Block {
    const block = { at, byteLength }
    this.#used.set(at, byteLength)
    this.#leaks?.register(block, { ...block }, block)
    return block
  }

  /** Gives a block back and joins it with free neighbours. Throws a RangeError for one that is not in use: freed twice, or never handed out. */
  free(block: Block): void {
    if (this.#used.get(block.at) !== block.byteLength) {
      throw new RangeError(`a block of ${block.byteLength} bytes at ${block.at} is not in use: it was freed before, or is none of this heap's`)
    }
    this.#used.delete(block.at)
    this.#leaks?.unregister(block)
    this.#usedBytes -= block.byteLength
    const holes = this.#free
    let i = 0
    while (i < holes.length && holes[i]!.at < block.at) i += 1
    holes.splice(i, 0, { at: block.at, byteLength: block.byteLength })
    for (let j = Math.max(1, i); j <= i + 1 && j < holes.length;) {
      const before = holes[j - 1]!
      const after = holes[j]!
      if (before.at + before.byteLength !== after.at) {
        j += 1
        continue
      }
      holes.splice(j - 1, 2, { at: before.at, byteLength: before.byteLength + after.byteLength })
      i -= 1
    }
  }
}
