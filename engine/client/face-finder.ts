// The page's handle on the worker that finds faces. It is started when somebody asks, and ends when nobody has for a while.
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { FoundFace, FromFace, ToFace } from '../person/face-protocol.ts'

export interface FaceFiles {
  readonly makeWorker: () => Worker
  readonly runtimeUrl: string
  readonly modelUrl: string
}

/** The model takes some 40 MB; it is let go after this long. */
const IDLE_MS = 60_000
/** The first answer waits for the model to load. */
const ANSWER_MS = 20_000

export class FaceFinder {
  readonly #files: FaceFiles
  readonly #waiting = new Map<number, (faces: readonly FoundFace[] | null) => void>()
  #worker: Worker | null = null
  #idleTimer = 0
  #nextId = 1

  constructor(files: FaceFiles) {
    this.#files = files
  }

  /** The faces in a straight RGBA picture, the largest first; null where none can be looked for here. */
  find({ data, widthPx, heightPx }: RgbaPicture): Promise<readonly FoundFace[] | null> {
    this.#worker ??= this.#start()
    const worker = this.#worker
    const requestId = this.#nextId++
    clearTimeout(this.#idleTimer)
    return new Promise((resolve) => {
      const timer = setTimeout(() => this.#settle(requestId, null), ANSWER_MS)
      this.#waiting.set(requestId, (faces) => {
        clearTimeout(timer)
        resolve(faces)
      })
      const copy = new Uint8ClampedArray(data)
      const { runtimeUrl, modelUrl } = this.#files
      worker.postMessage({ requestId, runtimeUrl, modelUrl, data: copy, widthPx, heightPx } satisfies ToFace, [copy.buffer])
    })
  }

  /** Ends the worker; who still waits hears null. Safe to call twice. */
  dispose(): void {
    clearTimeout(this.#idleTimer)
    this.#worker?.terminate()
    this.#worker = null
    for (const requestId of [...this.#waiting.keys()]) this.#settle(requestId, null)
  }

  #start(): Worker {
    const worker = this.#files.makeWorker()
    worker.onmessage = ({ data }: MessageEvent<FromFace>) => this.#settle(data.requestId, 'faces' in data ? data.faces : null)
    worker.onerror = () => this.dispose()
    return worker
  }

  #settle(requestId: number, faces: readonly FoundFace[] | null): void {
    this.#waiting.get(requestId)?.(faces)
    this.#waiting.delete(requestId)
    clearTimeout(this.#idleTimer)
    if (this.#waiting.size === 0) this.#idleTimer = setTimeout(() => this.dispose(), IDLE_MS) as unknown as number
  }
}
