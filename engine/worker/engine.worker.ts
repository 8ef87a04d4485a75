/// <reference lib="webworker" />
// The worker's door: starts the engine, then hands every message to it.
import { Heap } from '../cpu/heap.ts'
import type { FromEngine, ToEngine } from '../protocol.ts'
import { Engine } from './engine.ts'

declare const self: DedicatedWorkerGlobalScope

const waiting: Exclude<ToEngine, { type: 'start' }>[] = []
let engine: Engine | null = null

self.onmessage = ({ data }: MessageEvent<ToEngine>) => {
  if (data.type === 'start') {
    start(data).catch((error: unknown) => post({ type: 'failed', reason: error instanceof Error ? error.message : String(error) }))
  } else if (engine === null) {
    waiting.push(data)
  } else {
    engine.receive(data)
  }
}

async function start(message: Extract<ToEngine, { type: 'start' }>): Promise<void> {
  void navigator.locks.request(message.lifeLock, () => {
    post({ type: 'alive' })
    return new Promise<never>(() => undefined)
  })
  const wasm = await fetch(message.wasmUrl).then((response) => response.arrayBuffer())
  engine = new Engine(await Heap.create(wasm, tellLeak), message, message.personFiles, message.pin, post)
  post({ type: 'ready' })
  for (const early of waiting.splice(0)) engine.receive(early)
}

/** Memory that was lost without being freed is a fault of ours: whoever develops sees it in the console. */
function tellLeak(byteLength: number): void {
  // eslint-disable-next-line no-console -- meant for developers
  console.warn(`leak: ${byteLength} bytes of picture memory were lost without being freed`)
}

function post(message: FromEngine, transfer: Transferable[] = []): void {
  self.postMessage(message, transfer)
}
