/// <reference lib="webworker" />
// Fetches and decodes pictures on a thread of its own: a large photo takes a second, and the audience's picture must go on.
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { FromStill, ToStill } from './still-protocol.ts'

declare const self: DedicatedWorkerGlobalScope

/** Longest side a picture is decoded to; more would never be seen on a canvas. */
const LONGEST_SIDE_PX = 3840

self.onmessage = ({ data }: MessageEvent<ToStill>) => {
  load(data.url).then(
    (picture) => post({ requestId: data.requestId, still: { picture, isOpaque: isOpaque(picture) } }, [picture.data.buffer as ArrayBuffer]),
    (error: unknown) => post({ requestId: data.requestId, reason: error instanceof Error ? error.message : String(error) }),
  )
}

async function load(url: string): Promise<RgbaPicture> {
  const response = await fetch(url)
  if (!response.ok) throw new Error(`the file could not be read (${response.status})`)
  const bitmap = await createImageBitmap(await response.blob(), { premultiplyAlpha: 'none' })
  const scale = Math.min(1, LONGEST_SIDE_PX / Math.max(bitmap.width, bitmap.height))
  const widthPx = Math.max(1, Math.round(bitmap.width * scale))
  const heightPx = Math.max(1, Math.round(bitmap.height * scale))
  const pen = new OffscreenCanvas(widthPx, heightPx).getContext('2d', { willReadFrequently: true })
  if (pen === null) throw new Error('this browser refused a 2-D canvas')
  pen.imageSmoothingQuality = 'high'
  pen.drawImage(bitmap, 0, 0, widthPx, heightPx)
  bitmap.close()
  return { format: 'rgba', widthPx, heightPx, data: pen.getImageData(0, 0, widthPx, heightPx).data }
}

function isOpaque({ data }: RgbaPicture): boolean {
  for (let at = 3; at < data.length; at += 4) if (data[at] !== 255) return false
  return true
}

function post(message: FromStill, transfer: Transferable[] = []): void {
  self.postMessage(message, transfer)
}
