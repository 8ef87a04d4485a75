export interface PageToEncode {
  readonly requestId: number
  readonly picture: ImageBitmap
}

/** A page as a file, and a small picture of it. */
export interface EncodedPage {
  readonly file: Blob
  readonly thumb: Blob
  readonly widthPx: number
  readonly heightPx: number
}

type Answer = { readonly requestId: number } & ({ readonly page: EncodedPage } | { readonly reason: string })

/** Makes PNG files of pictures in a worker of its own; `close` ends it. */
export class PageEncoder {
  readonly #worker = new Worker(new URL('./page-encoder.worker.ts', import.meta.url), { type: 'module', name: 'pages' })
  readonly #waiting = new Map<number, { readonly resolve: (page: EncodedPage) => void; readonly reject: (error: Error) => void }>()
  #nextId = 1

  constructor() {
    this.#worker.onmessage = ({ data }: MessageEvent<Answer>) => {
      const waiting = this.#waiting.get(data.requestId)
      this.#waiting.delete(data.requestId)
      if ('page' in data) waiting?.resolve(data.page)
      else waiting?.reject(new Error(data.reason))
    }
    this.#worker.onerror = (event) => this.#end(event.message)
  }

  /** Takes the picture over. Rejects with an Error that says why it cannot be made a file. */
  encode(picture: ImageBitmap): Promise<EncodedPage> {
    const requestId = this.#nextId++
    return new Promise((resolve, reject) => {
      this.#waiting.set(requestId, { resolve, reject })
      this.#worker.postMessage({ requestId, picture } satisfies PageToEncode, [picture])
    })
  }

  close(): void {
    this.#worker.terminate()
    this.#end('closed')
  }

  #end(reason: string): void {
    for (const { reject } of this.#waiting.values()) reject(new Error(reason))
    this.#waiting.clear()
  }
}
