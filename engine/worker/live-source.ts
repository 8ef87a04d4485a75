// One live input inside the worker: takes frames as they come and keeps the newest as plain bytes.
import type { Picture } from '../../core/picture/picture.ts'
import { MARK_RATE } from '../../core/marks/frame-mark.ts'
import { copyFrame } from '../copy-frame.ts'
import type { SourceFrame } from '../executor.ts'
import type { PortFrame } from '../protocol.ts'
import type { FrameLedger } from './frame-ledger.ts'
import { RateMeter } from './rate-meter.ts'

export interface LiveSourceEvents {
  /** A new picture is there. */
  readonly onFrame: () => void
  /** The device's track is over: null; or its pictures cannot be read any more, and why. */
  readonly onEnd: (fault: string | null) => void
}

/** Pictures in a row that could not be copied, after which a supply is given up: a third of a second. */
const MOST_FAULTS = 10

/** How often a resting source reads a picture. */
const REST_PERIOD_MS = 500

const STANDIN_CODES = { format: 'i420', matrix: 'bt709', range: 'limited' } as const

export class LiveSource {
  readonly meter = new RateMeter()
  frameNumber = -1
  /** When the newest picture was taken, in ms of the camera's own clock. */
  captureMs = 0
  #frame: SourceFrame | null = null
  #version = 0
  #isClosed = false
  #isFrozen = false
  #isResting = false
  #readMs = -Infinity
  #buffers: Uint8Array<ArrayBuffer>[] = []
  readonly #events: LiveSourceEvents
  readonly #close: () => void

  private constructor(events: LiveSourceEvents, close: () => void) {
    this.#events = events
    this.#close = close
  }

  /** Frames of a device's track. */
  static fromStream(readable: ReadableStream<VideoFrame>, ledger: FrameLedger, events: LiveSourceEvents): LiveSource {
    const reader = readable.getReader()
    const source = new LiveSource(events, () => void reader.cancel().catch(() => undefined))
    void source.#readAll(reader, ledger)
    return source
  }

  /** Frames of a stand-in or a clip, whose buffers go back to it. */
  static fromPort(port: MessagePort, events: LiveSourceEvents): LiveSource {
    let held: PortFrame | null = null
    const source = new LiveSource(events, () => {
      port.postMessage({ type: 'stop' })
      port.close()
    })
    port.onmessage = ({ data }: MessageEvent<PortFrame>) => {
      if (source.#isClosed) return
      if (source.#isFrozen) {
        port.postMessage({ type: 'return', data: data.data }, [data.data.buffer])
        return
      }
      const before = held
      held = data
      source.frameNumber = data.frameNumber
      source.captureMs = data.mediaUs === undefined ? (data.frameNumber * 1000) / MARK_RATE : data.mediaUs / 1000
      const { widthPx, heightPx, codes = STANDIN_CODES } = data
      source.#show({ ...codes, widthPx, heightPx, data: data.data })
      if (before !== null) port.postMessage({ type: 'return', data: before.data }, [before.data.buffer])
    }
    return source
  }

  /** The newest picture; null before the first. */
  get frame(): SourceFrame | null {
    return this.#frame
  }

  /** Holds the picture still while true. */
  freeze(isFrozen: boolean): void {
    this.#isFrozen = isFrozen
  }

  /** While true, two pictures a second are read, and the others let go: enough to have a fresh one when somebody looks. */
  rest(isResting: boolean): void {
    this.#isResting = isResting
  }

  /** Stops reading. Safe to call twice. */
  close(): void {
    if (this.#isClosed) return
    this.#isClosed = true
    this.#close()
  }

  /** Never throws: whatever stops the pictures is told, so that they can be asked for again. */
  async #readAll(reader: ReadableStreamDefaultReader<VideoFrame>, ledger: FrameLedger): Promise<void> {
    let faults = 0
    let fault: string | null = null
    try {
      for (;;) {
        const { done, value } = await reader.read()
        if (done || value === undefined) break
        const failed = await this.#take(value, ledger)
        faults = failed === null ? 0 : faults + 1
        // One picture that cannot be copied is left out; the next may be whole.
        if (faults < MOST_FAULTS) continue
        fault = failed
        break
      }
    } catch (error) {
      fault = wordsOf(error)
    }
    if (!this.#isClosed) this.#events.onEnd(fault)
  }

  /** Copies a picture and shows it; why not, if it could not be copied. */
  async #take(value: VideoFrame, ledger: FrameLedger): Promise<string | null> {
    const frame = ledger.take(value)
    let picture: Picture | null
    try {
      this.captureMs = frame.timestamp / 1000
      picture = this.#isFrozen || this.#isClosed || this.#skips() ? null : await copyFrame(frame, (byteLength) => this.#buffer(byteLength))
    } catch (error) {
      return wordsOf(error)
    } finally {
      ledger.close(frame)
    }
    if (picture !== null && !this.#isClosed) this.#show(picture)
    return null
  }

  /** Whether a resting source lets a picture go. It still counts as one that came. */
  #skips(): boolean {
    const nowMs = performance.now()
    if (this.#isResting && nowMs - this.#readMs < REST_PERIOD_MS) {
      this.meter.note(nowMs)
      return true
    }
    this.#readMs = nowMs
    return false
  }

  #show(picture: Picture): void {
    this.#version += 1
    this.#frame = { picture, version: this.#version, isLive: true }
    this.meter.note(performance.now())
    this.#events.onFrame()
  }

  /** Two buffers in turn: the one on show is never written. */
  #buffer(byteLength: number): Uint8Array<ArrayBuffer> {
    const next = this.#buffers.find((buffer) => buffer !== this.#frame?.picture.data && buffer.length === byteLength)
    if (next !== undefined) return next
    const fresh = new Uint8Array(byteLength)
    this.#buffers = [...this.#buffers.filter((buffer) => buffer.length === byteLength).slice(-1), fresh]
    return fresh
  }
}

function wordsOf(error: unknown): string {
  return error instanceof Error ? error.message : String(error)
}
