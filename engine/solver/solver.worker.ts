/// <reference lib="webworker" />
// Finds a key on a thread of its own, so that the picture goes on meanwhile.
import type { Rgb } from '../../core/colour/hex.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import { findKey, type KeySolution } from '../../core/solve/find-key.ts'
import type { StepCall } from '../../core/steps/index.ts'
import { Heap } from '../cpu/heap.ts'
import { treatStill } from '../cpu/treat-still.ts'

declare const self: DedicatedWorkerGlobalScope

export interface SolveRequest {
  readonly wasmUrl: string
  readonly picture: RgbaPicture
  readonly hint: Rgb
  readonly plate: { readonly reference: string; readonly picture: RgbaPicture } | null
  readonly before: readonly StepCall[]
}

export type FromSolver =
  | { readonly type: 'progress'; readonly share: number }
  | { readonly type: 'solved'; readonly solution: KeySolution | null }
  | { readonly type: 'failed'; readonly reason: string }

self.onmessage = ({ data }: MessageEvent<SolveRequest>) => {
  solve(data).catch((error: unknown) => post({ type: 'failed', reason: error instanceof Error ? error.message : String(error) }))
}

async function solve({ wasmUrl, ...task }: SolveRequest): Promise<void> {
  const heap = await Heap.create(await (await fetch(wasmUrl)).arrayBuffer())
  const solution = findKey({
    ...task,
    treat: (picture, calls, resources) => treatStill(heap, picture, calls, { resources }),
    onProgress: (share) => post({ type: 'progress', share }),
  })
  post({ type: 'solved', solution })
}

function post(message: FromSolver): void {
  self.postMessage(message)
}
