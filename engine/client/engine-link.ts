// The one line between the page and the engine's worker: messages out, and answers to what was asked.
import type { ToEngine } from '../protocol.ts'

export class EngineLink {
  readonly #worker: Worker
  readonly #waiting = new Map<number, (value: never) => void>()
  #nextId = 1

  constructor(worker: Worker) {
    this.#worker = worker
  }

  /** A number that was not given before, for requests and views. */
  nextId(): number {
    this.#nextId += 1
    return this.#nextId
  }

  post(message: ToEngine, transfer: Transferable[] = []): void {
    this.#worker.postMessage(message, transfer)
  }

  /** Asks something; the answer is null if the engine ends first, or once the signal says that nobody waits, which `onDrop` tells the engine. */
  ask<T>(make: (requestId: number) => ToEngine, signal?: AbortSignal, onDrop?: (requestId: number) => ToEngine): Promise<T | null> {
    const requestId = this.nextId()
    return new Promise((resolve) => {
      if (signal?.aborted === true) return resolve(null)
      this.#waiting.set(requestId, resolve as (value: never) => void)
      signal?.addEventListener('abort', () => {
        if (!this.#waiting.delete(requestId)) return
        if (onDrop !== undefined) this.post(onDrop(requestId))
        resolve(null)
      })
      return this.post(make(requestId))
    })
  }

  /** Hands on an answer; one that nobody waits for any more is let go. */
  answer(requestId: number, value: unknown): void {
    this.#waiting.get(requestId)?.(value as never)
    this.#waiting.delete(requestId)
  }

  /** Ends the worker; whoever waits gets nothing. */
  dispose(): void {
    for (const requestId of [...this.#waiting.keys()]) this.answer(requestId, null)
    this.#worker.terminate()
  }
}
