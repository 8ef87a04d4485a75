// Undo and redo by keeping earlier shows; they share what did not change.
import type { Show } from '../../core/show/show.ts'

interface Entry {
  readonly show: Show
  /** What the edit after this state did, for "Undo placement". */
  readonly label: string
}

/** A run of edits with one key within this time is one step back. */
const COALESCE_MS = 900
const STEPS_KEPT = 300

export class History {
  readonly #past: Entry[] = []
  readonly #future: Entry[] = []
  readonly #now: () => number
  #lastKey: string | null = null
  #lastMs = -Infinity

  constructor(now: () => number) {
    this.#now = now
  }

  /** What one step back would undo; null at the beginning. */
  get undoLabel(): string | null {
    return this.#past.at(-1)?.label ?? null
  }

  get redoLabel(): string | null {
    return this.#future.at(-1)?.label ?? null
  }

  /** What each step back would undo, the nearest first. */
  get pastLabels(): readonly string[] {
    return this.#past.map(({ label }) => label).toReversed()
  }

  /** What each step forth would do again, the nearest first. */
  get futureLabels(): readonly string[] {
    return this.#future.map(({ label }) => label).toReversed()
  }

  /** The state that one step back, or forth, would bring; null at the end. */
  get past(): Show | null {
    return this.#past.at(-1)?.show ?? null
  }

  get future(): Show | null {
    return this.#future.at(-1)?.show ?? null
  }

  /** Notes the state before an edit. Edits with the same `key` in quick succession join. */
  note(before: Show, label: string, key: string | null): void {
    const now = this.#now()
    const joins = key !== null && key === this.#lastKey && now - this.#lastMs < COALESCE_MS
    this.#lastKey = key
    this.#lastMs = now
    this.#future.length = 0
    if (joins) return
    this.#past.push({ show: before, label })
    if (this.#past.length > STEPS_KEPT) this.#past.shift()
  }

  /** The state before the last edit; null when there is none. */
  undo(current: Show): Show | null {
    return this.#step(this.#past, this.#future, current)
  }

  redo(current: Show): Show | null {
    return this.#step(this.#future, this.#past, current)
  }

  #step(from: Entry[], to: Entry[], current: Show): Show | null {
    const entry = from.pop()
    if (entry === undefined) return null
    to.push({ show: current, label: entry.label })
    this.#lastKey = null
    return entry.show
  }
}
