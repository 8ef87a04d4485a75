// A clip's file is decoded whole before it is added, on a thread of its own.
import type { ClipCheck } from '../../engine/clip/check-clip.ts'
import type { FromClipCheck } from '../../engine/clip/check-clip.worker.ts'

const MOVING = /^video\/|^image\/(gif|apng|webp)$/

/** Null where the browser cannot open the file at all, or need not: the server says what is wrong. Rejects when aborted. */
export function checkClipFile(file: File, signal: AbortSignal, onShare: (share: number) => void): Promise<ClipCheck | null> {
  if (!MOVING.test(file.type)) return Promise.resolve(null)
  const worker = new Worker(new URL('../../engine/clip/check-clip.worker.ts', import.meta.url), { type: 'module', name: 'clip check' })
  return new Promise<ClipCheck | null>((resolve, reject) => {
    signal.addEventListener('abort', () => reject(new DOMException('cancelled', 'AbortError')), { once: true })
    worker.onerror = () => resolve(null)
    worker.onmessage = ({ data }: MessageEvent<FromClipCheck>) => {
      if (data.type === 'progress') onShare(data.share)
      else resolve(data.type === 'done' ? data.check : null)
    }
    worker.postMessage(file)
  }).finally(() => worker.terminate())
}
