// Islands and holes of a matte: connected parts (edge neighbours) above or below half opacity.

/** Makes islands of fewer than `specks` pixels clear, and fills holes of fewer than `holes` that don't touch the border; in place. */
export class Islands {
  readonly #widthPx: number
  readonly #heightPx: number
  readonly #labels: Int32Array
  #parents = new Int32Array(1024)
  #areas = new Int32Array(1024)
  #touchesBorder = new Uint8Array(1024)
  #count = 0

  constructor(widthPx: number, heightPx: number) {
    this.#widthPx = widthPx
    this.#heightPx = heightPx
    this.#labels = new Int32Array(widthPx * heightPx)
  }

  /** `alpha` holds every `stride`-th value from `offset` on; `one` is full opacity. */
  clean(alpha: Float64Array | Uint8Array, offset: number, stride: number, one: number, specks: number, holes: number): void {
    this.#label(alpha, offset, stride, one / 2)
    const labels = this.#labels
    const half = one / 2
    for (let i = 0, at = offset; i < labels.length; i += 1, at += stride) {
      const root = this.#rootOf(labels[i]!)
      const area = this.#areas[root]!
      if (alpha[at]! > half) {
        if (area < specks) alpha[at] = 0
      } else if (area < holes && this.#touchesBorder[root] === 0) alpha[at] = one
    }
  }

  #label(alpha: Float64Array | Uint8Array, offset: number, stride: number, half: number): void {
    const width = this.#widthPx
    const labels = this.#labels
    this.#count = 0
    for (let y = 0; y < this.#heightPx; y += 1) {
      for (let x = 0; x < width; x += 1) {
        const i = y * width + x
        const isIn = alpha[offset + i * stride]! > half
        const leftLike = x > 0 && alpha[offset + (i - 1) * stride]! > half === isIn
        const upLike = y > 0 && alpha[offset + (i - width) * stride]! > half === isIn
        let label: number
        if (leftLike) {
          label = labels[i - 1]!
          if (upLike && labels[i - width]! !== label) label = this.#join(label, labels[i - width]!)
        } else label = upLike ? labels[i - width]! : this.#newLabel()
        labels[i] = label
        this.#areas[label]! += 1
        if (x === 0 || y === 0 || x === width - 1 || y === this.#heightPx - 1) this.#touchesBorder[label] = 1
      }
    }
    // Gather the areas of joined parts at their roots.
    for (let label = this.#count - 1; label >= 0; label -= 1) {
      const root = this.#rootOf(label)
      if (root === label) continue
      this.#areas[root]! += this.#areas[label]!
      this.#areas[label] = 0
      this.#touchesBorder[root]! |= this.#touchesBorder[label]!
    }
  }

  #newLabel(): number {
    if (this.#count === this.#parents.length) {
      this.#parents = grown(this.#parents)
      this.#areas = grown(this.#areas)
      const flags = new Uint8Array(this.#touchesBorder.length * 2)
      flags.set(this.#touchesBorder)
      this.#touchesBorder = flags
    }
    const label = this.#count
    this.#count += 1
    this.#parents[label] = label
    this.#areas[label] = 0
    this.#touchesBorder[label] = 0
    return label
  }

  #rootOf(label: number): number {
    const parents = this.#parents
    let root = label
    while (parents[root]! !== root) root = parents[root]!
    while (parents[label]! !== root) {
      const next = parents[label]!
      parents[label] = root
      label = next
    }
    return root
  }

  #join(first: number, second: number): number {
    const a = this.#rootOf(first)
    const b = this.#rootOf(second)
    if (a === b) return a
    const root = Math.min(a, b)
    this.#parents[Math.max(a, b)] = root
    return root
  }
}

function grown(values: Int32Array): Int32Array<ArrayBuffer> {
  const larger = new Int32Array(values.length * 2)
  larger.set(values)
  return larger
}
