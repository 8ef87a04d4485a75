// The engine's side of the worker that decodes pictures.
import type { FromStill, LoadedStill, ToStill } from './still-protocol.ts'

export class StillLoader {
  readonly #waiting = new Map<number, { readonly resolve: (still: LoadedStill) => void; readonly reject: (error: Error) => void }>()
  #worker: Worker | null = null
  #nextId = 1

  /** Fetches and decodes a picture. Rejects with an Error that says why it can't be shown. */
  load(url: string): Promise<LoadedStill> {
    this.#worker ??= this.#start()
    const worker = this.#worker
    const requestId = this.#nextId++
    return new Promise((resolve, reject) => {
      this.#waiting.set(requestId, { resolve, reject })
      worker.postMessage({ requestId, url } satisfies ToStill)
    })
  }

  #start(): Worker {
    const worker = new Worker(new URL('./still.worker.ts', import.meta.url), { type: 'module', name: 'stills' })
    worker.onmessage = ({ data }: MessageEvent<FromStill>) => {
      const waiting = this.#waiting.get(data.requestId)
      this.#waiting.delete(data.requestId)
      if ('still' in data) waiting?.resolve(data.still)
      else waiting?.reject(new Error(data.reason))
    }
    // A worker that died takes what it was asked for along; the next picture starts another.
    worker.onerror = (event) => {
      worker.terminate()
      this.#worker = null
      for (const { reject } of this.#waiting.values()) reject(new Error(event.message || 'pictures cannot be decoded here'))
      this.#waiting.clear()
    }
    return worker
  }
}
