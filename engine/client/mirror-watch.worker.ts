/// <reference lib="webworker" />
// Looks for the studio's own mark in a picture of a screen.
import { findSelfMark } from '../../core/marks/self-mark.ts'

declare const self: DedicatedWorkerGlobalScope

export interface ToMirrorWatch {
  readonly requestId: number
  /** Straight RGBA. */
  readonly data: Uint8ClampedArray<ArrayBuffer>
  readonly widthPx: number
  readonly heightPx: number
}

self.onmessage = ({ data: { requestId, data, widthPx, heightPx } }: MessageEvent<ToMirrorWatch>) => {
  const found = findSelfMark(widthPx, heightPx, (x, y) => {
    const at = (y * widthPx + x) * 4
    return 0.2126 * data[at]! + 0.7152 * data[at + 1]! + 0.0722 * data[at + 2]!
  })
  self.postMessage({ requestId, isFound: found !== null })
}
