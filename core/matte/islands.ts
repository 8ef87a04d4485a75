// Islands and holes of a matte: connected parts (edge neighbours) above or below half opacity. Rows are taken as runs of
// one kind, so that the work grows with the edges of a matte, not with its pixels.

/** Makes islands of fewer than `specks` pixels clear, then fills holes of fewer than `holes` that don't touch the border; in place. */
export class Islands {
  readonly #widthPx: number
  readonly #heightPx: number
  /** The first run of each row, then how many runs there are. */
  readonly #rows: Int32Array
  /** Where each run starts in its row; it ends where the next one starts, or with the row. */
  #starts = new Int32Array(4096)
  #parents = new Int32Array(4096)
  /** Pixels of the whole part, at its root. */
  #areas = new Int32Array(4096)
  #touchesBorder = new Uint8Array(4096)
  #isIn = new Uint8Array(4096)
  #count = 0

  constructor(widthPx: number, heightPx: number) {
    this.#widthPx = widthPx
    this.#heightPx = heightPx
    this.#rows = new Int32Array(heightPx + 1)
  }

  /** `alpha` holds every `stride`-th value from `offset` on; `one` is full opacity. */
  clean(alpha: Float64Array | Uint8Array, offset: number, stride: number, one: number, specks: number, holes: number): void {
    this.#label(alpha, offset, stride, one)
    // A hole in a speck goes with it, and a speck in a hole makes that larger: holes are those of the matte without its specks.
    if (specks > 0 && this.#sweep(alpha, offset, stride, one, specks, 0) && holes > 0) this.#label(alpha, offset, stride, one)
    if (holes > 0) this.#sweep(alpha, offset, stride, one, 0, holes)
  }

  #label(alpha: Float64Array | Uint8Array, offset: number, stride: number, one: number): void {
    this.#findRuns(alpha, offset, stride, one / 2)
    for (let y = 1; y < this.#heightPx; y += 1) this.#joinRows(y)
    this.#gatherAreas()
  }

  /** Turns parts that are too small into what is around them; says whether there were any. */
  #sweep(alpha: Float64Array | Uint8Array, offset: number, stride: number, one: number, specks: number, holes: number): boolean {
    let hasChanged = false
    for (let y = 0; y < this.#heightPx; y += 1) {
      for (let run = this.#rows[y]!; run < this.#rows[y + 1]!; run += 1) {
        const root = this.#rootOf(run)
        const area = this.#areas[root]!
        const isIn = this.#isIn[run] === 1
        if (isIn ? area >= specks : area >= holes || this.#touchesBorder[root] === 1) continue
        const end = this.#endOf(run, y)
        for (let x = this.#starts[run]!; x < end; x += 1) alpha[offset + (y * this.#widthPx + x) * stride] = isIn ? 0 : one
        hasChanged = true
      }
    }
    return hasChanged
  }

  #findRuns(alpha: Float64Array | Uint8Array, offset: number, stride: number, half: number): void {
    const width = this.#widthPx
    this.#count = 0
    for (let y = 0; y < this.#heightPx; y += 1) {
      this.#rows[y] = this.#count
      let at = offset + y * width * stride
      let isIn = !(alpha[at]! > half)
      for (let x = 0; x < width; x += 1, at += stride) {
        if (alpha[at]! > half === isIn) continue
        isIn = !isIn
        this.#addRun(x, isIn)
      }
      const last = this.#count - 1
      this.#touchesBorder[last] = 1
      this.#touchesBorder[this.#rows[y]!] = 1
      if (y === 0 || y === this.#heightPx - 1) this.#touchesBorder.fill(1, this.#rows[y]!, this.#count)
    }
    this.#rows[this.#heightPx] = this.#count
  }

  #addRun(start: number, isIn: boolean): void {
    if (this.#count === this.#starts.length) this.#grow()
    const run = this.#count
    this.#count += 1
    this.#starts[run] = start
    this.#isIn[run] = isIn ? 1 : 0
    this.#parents[run] = run
    this.#areas[run] = 0
    this.#touchesBorder[run] = 0
  }

  #endOf(run: number, y: number): number {
    return run + 1 < this.#rows[y + 1]! ? this.#starts[run + 1]! : this.#widthPx
  }

  /** Joins the runs of a row with those above that are of their kind and lie over them. */
  #joinRows(y: number): void {
    let above = this.#rows[y - 1]!
    let below = this.#rows[y]!
    const endAbove = this.#rows[y]!
    const endBelow = this.#rows[y + 1]!
    while (above < endAbove && below < endBelow) {
      if (this.#isIn[above] === this.#isIn[below]) this.#join(above, below)
      // The run that ends first makes way; runs of a row lie side by side, so that the other still overlaps.
      const ends = this.#endOf(above, y - 1) - this.#endOf(below, y)
      if (ends <= 0) above += 1
      if (ends >= 0) below += 1
    }
  }

  #gatherAreas(): void {
    for (let y = 0; y < this.#heightPx; y += 1) {
      for (let run = this.#rows[y]!; run < this.#rows[y + 1]!; run += 1) {
        const root = this.#rootOf(run)
        this.#areas[root]! += this.#endOf(run, y) - this.#starts[run]!
        this.#touchesBorder[root]! |= this.#touchesBorder[run]!
      }
    }
  }

  #rootOf(run: number): number {
    const parents = this.#parents
    let root = run
    while (parents[root]! !== root) root = parents[root]!
    while (parents[run]! !== root) {
      const next = parents[run]!
      parents[run] = root
      run = next
    }
    return root
  }

  #join(first: number, second: number): void {
    const a = this.#rootOf(first)
    const b = this.#rootOf(second)
    if (a !== b) this.#parents[Math.max(a, b)] = Math.min(a, b)
  }

  #grow(): void {
    this.#starts = grown(this.#starts)
    this.#parents = grown(this.#parents)
    this.#areas = grown(this.#areas)
    this.#touchesBorder = grownBytes(this.#touchesBorder)
    this.#isIn = grownBytes(this.#isIn)
  }
}

function grown(values: Int32Array): Int32Array<ArrayBuffer> {
  const larger = new Int32Array(values.length * 2)
  larger.set(values)
  return larger
}

function grownBytes(values: Uint8Array): Uint8Array<ArrayBuffer> {
  const larger = new Uint8Array(values.length * 2)
  larger.set(values)
  return larger
}
