// A document that lives in two threads: sent whole once, then as patches, so that what did not change stays the same object on the other side.
import { patched, patchOf, type Patch } from './patch.ts'

export type DocumentChange<T> = { readonly type: 'whole'; readonly document: T } | { readonly type: 'patch'; readonly patch: Patch }

/** The side that edits. */
export class DocumentSender<T> {
  #sent: T | null = null

  /** What the other side needs to have `document`. Every change must arrive, in order. */
  changeTo(document: T): DocumentChange<T> {
    const before = this.#sent
    this.#sent = document
    return before === null ? { type: 'whole', document } : { type: 'patch', patch: patchOf(before, document) }
  }

  /** The other side has dropped it: the next change is whole. */
  forget(): void {
    this.#sent = null
  }
}

/** The side that follows. */
export class DocumentReceiver<T> {
  #document: T | null = null

  /** The document after a change. Throws a RangeError for a patch on nothing, or one that does not fit. */
  take(change: DocumentChange<T>): T {
    if (change.type === 'whole') return (this.#document = change.document)
    if (this.#document === null) throw new RangeError('a patch came before the document')
    return (this.#document = patched(this.#document, change.patch))
  }

  forget(): void {
    this.#document = null
  }
}
