// Many files in one body: how many there are, then each with its length before it. Numbers are 32 bits, little-endian.
import { LIMITS, MOST_BYTES } from '../../core/schema/limits.ts'
import { HttpError } from '../http-error.ts'

const cutOff = () => new HttpError(400, 'upload-cut-off', 'The pages did not arrive whole. Send them again.')

/** What is wrong with pages that are larger together than any deck may be. */
export const pagesTooLarge = () =>
  new HttpError(413, 'deck-bytes', `These pages are larger than ${MOST_BYTES.pages / 1024 ** 3} GB together. Import fewer of them, or at a smaller size.`)

/** Reads a body piece by piece; each file has to be read to its end before the next. */
export class PageStream {
  readonly #chunks: AsyncIterator<Buffer>
  #rest: Buffer = Buffer.alloc(0)
  #readBytes = 0

  constructor(body: AsyncIterable<Buffer>) {
    this.#chunks = body[Symbol.asyncIterator]()
  }

  /** How many files follow. Throws an HttpError where that is none, or more than a deck may have. */
  async readCount(): Promise<number> {
    const count = await this.#readNumber()
    if (count < 1 || count > LIMITS.deckPages) {
      throw new HttpError(400, 'deck-pages', `A deck has 1 to ${LIMITS.deckPages} pages; ${count} were sent. Choose fewer pages.`)
    }
    return count
  }

  /** The bytes of the next file. Throws an HttpError where it is too large or cut off. */
  async *next(): AsyncGenerator<Buffer> {
    let left = await this.#readNumber()
    if (left > MOST_BYTES.picture) throw new HttpError(413, 'picture-bytes', 'A page is larger than 40 MB. Import the slides at a smaller size.')
    while (left > 0) {
      if (this.#rest.length === 0) await this.#fill()
      const part = this.#rest.subarray(0, left)
      this.#rest = this.#rest.subarray(part.length)
      left -= part.length
      yield part
    }
  }

  async #readNumber(): Promise<number> {
    while (this.#rest.length < 4) await this.#fill()
    const number = this.#rest.readUInt32LE(0)
    this.#rest = this.#rest.subarray(4)
    return number
  }

  async #fill(): Promise<void> {
    const { done, value } = await this.#chunks.next()
    if (done === true) throw cutOff()
    this.#readBytes += value.length
    if (this.#readBytes > MOST_BYTES.pages) throw pagesTooLarge()
    this.#rest = this.#rest.length === 0 ? value : Buffer.concat([this.#rest, value])
  }
}
