/// <reference lib="webworker" />
// Checks one clip on a thread of its own.
import { checkClip, type ClipCheck } from './check-clip.ts'

declare const self: DedicatedWorkerGlobalScope

export type FromClipCheck =
  | { readonly type: 'progress'; readonly share: number }
  | { readonly type: 'done'; readonly check: ClipCheck }
  /** It cannot be opened here; why. */
  | { readonly type: 'failed'; readonly reason: string }

self.onmessage = ({ data }: MessageEvent<Blob>) => {
  checkClip(data, (share) => post({ type: 'progress', share })).then(
    (check) => post({ type: 'done', check }),
    (error: unknown) => post({ type: 'failed', reason: error instanceof Error ? error.message : String(error) }),
  )
}

function post(message: FromClipCheck): void {
  self.postMessage(message)
}
