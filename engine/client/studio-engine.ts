// The page's handle on the engine's worker: its life here, what it is asked for by domain in the calls beside this file.
import type { SourceId, SourceInfo } from '../../core/picture/source.ts'
import type { FaceFile } from '../../core/text/typefaces.ts'
import type { SeenPicture } from '../../core/sync/clap-picture.ts'
import type { ExecutorPin, ExecutorState } from '../executors.ts'
import type { EngineStats, FromEngine, PersonFiles, Scopes, ToEngine } from '../protocol.ts'
import { EngineLink } from './engine-link.ts'
import { FigureCalls } from './figure-calls.ts'
import { InputCalls } from './input-calls.ts'
import { OutputCalls } from './output-calls.ts'
import { PictureCalls } from './picture-calls.ts'
import { ProgrammeCalls } from './programme-calls.ts'
import { ViewCalls } from './view-calls.ts'

export interface StudioEngineEvents {
  readonly onReady?: () => void
  readonly onExecutor?: (state: ExecutorState) => void
  readonly onFirstPicture?: () => void
  readonly onSources?: (infos: ReadonlyMap<SourceId, SourceInfo>) => void
  readonly onStats?: (stats: EngineStats) => void
  readonly onScopes?: (inputId: string, scopes: Scopes) => void
  readonly onMotion?: (sample: SeenPicture) => void
  /** People can't be found in pictures; the reason is for the log. */
  readonly onPersonFailed?: (reason: string) => void
  readonly onAssetFailed?: (asset: string, reason: string) => void
  readonly onSupplyEnded?: (inputId: string, fault: string | null) => void
  /** A frame could not be made; the engine goes on. */
  readonly onFaulted?: (reason: string) => void
  /** The worker is gone without a word: another must be made. */
  readonly onGone?: () => void
  /** The worker died; `start` may be called again. */
  readonly onFailed?: (reason: string) => void
}

export interface EngineFiles {
  readonly makeWorker: () => Worker
  readonly wasmUrl: string
  readonly loadFonts: () => Promise<readonly FaceFile[]>
  readonly assetUrlPrefix: string
  readonly personFiles: PersonFiles
}

export class StudioEngine {
  readonly programme: ProgrammeCalls
  readonly outputs: OutputCalls
  readonly inputs: InputCalls
  readonly views: ViewCalls
  readonly pictures: PictureCalls
  readonly figures: FigureCalls
  readonly #files: EngineFiles
  readonly #events: StudioEngineEvents
  readonly #link: EngineLink
  readonly #lifeLock = `green-room-engine ${crypto.randomUUID()}`
  readonly #disposal = new AbortController()

  constructor(files: EngineFiles, pin: ExecutorPin, events: StudioEngineEvents) {
    this.#files = files
    this.#events = events
    this.#link = new EngineLink(this.#start(pin))
    this.programme = new ProgrammeCalls(this.#link)
    this.outputs = new OutputCalls(this.#link)
    this.inputs = new InputCalls(this.#link)
    this.views = new ViewCalls(this.#link)
    this.pictures = new PictureCalls(this.#link)
    this.figures = new FigureCalls(this.#link)
  }

  /** Lets the processor or the graphics card make the pictures, or the faster one. */
  pinExecutor(pin: ExecutorPin): void {
    this.#link.post({ type: 'pinExecutor', pin })
  }

  /** Takes the graphics card away, or gives it back. */
  simulateLoss(isLost: boolean): void {
    this.#link.post({ type: 'simulateLoss', isLost })
  }

  dispose(): void {
    this.outputs.closeAll()
    this.#disposal.abort()
    this.#link.dispose()
  }

  /** Waits for the lock that the worker holds while it lives. A busy worker keeps it; a dead one does not. */
  #watchLife(): void {
    navigator.locks.request(this.#lifeLock, { signal: this.#disposal.signal }, () => this.#events.onGone?.()).catch((error: unknown) => this.#fail(error))
  }

  #start(pin: ExecutorPin): Worker {
    const worker = this.#files.makeWorker()
    worker.onmessage = ({ data }: MessageEvent<FromEngine>) => this.#receive(data)
    worker.onerror = (event) => this.#events.onFailed?.(event.message)
    const { wasmUrl, assetUrlPrefix, personFiles } = this.#files
    // Until then the worker keeps what it is told.
    this.#files.loadFonts().then(
      (fonts) => worker.postMessage({ type: 'start', wasmUrl, fonts, assetUrlPrefix, personFiles, pin, lifeLock: this.#lifeLock } satisfies ToEngine),
      (error: unknown) => this.#fail(error),
    )
    return worker
  }

  /** One that was let go has nothing to tell any more. */
  #fail(error: unknown): void {
    if (!this.#disposal.signal.aborted) this.#events.onFailed?.(error instanceof Error ? error.message : String(error))
  }

  #receive(message: FromEngine): void {
    switch (message.type) {
      case 'ready':
        return this.#events.onReady?.()
      case 'executor':
        return this.#events.onExecutor?.(message.state)
      case 'firstPicture':
        return this.#events.onFirstPicture?.()
      case 'sources':
        return this.#events.onSources?.(new Map(message.infos))
      case 'stats':
        return this.#events.onStats?.(message.stats)
      case 'picked':
        return this.#link.answer(message.requestId, message.colour)
      case 'covered':
        return this.#link.answer(message.requestId, message.picture)
      case 'grabbed':
        return this.#link.answer(message.requestId, message.picture)
      case 'scopes':
        return this.#events.onScopes?.(message.inputId, message.scopes)
      case 'motion':
        return this.#events.onMotion?.(message.sample)
      case 'personFailed':
        return this.#events.onPersonFailed?.(message.reason)
      case 'assetFailed':
        return this.#events.onAssetFailed?.(message.asset, message.reason)
      case 'supplyEnded':
        if (this.inputs.isNewest(message.inputId, message.serial)) this.#events.onSupplyEnded?.(message.inputId, message.fault)
        return
      case 'alive':
        return this.#watchLife()
      case 'faulted':
        return this.#events.onFaulted?.(message.reason)
      case 'failed':
        return this.#events.onFailed?.(message.reason)
      default:
        message satisfies never
    }
  }
}
