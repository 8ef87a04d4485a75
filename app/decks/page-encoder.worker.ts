/// <reference lib="webworker" />
// Makes files of pages that were drawn, away from the page that the presenter works in.
import type { EncodedPage, PageToEncode } from './page-encoder.ts'

declare const self: DedicatedWorkerGlobalScope

const THUMB_WIDTH_PX = 320

self.onmessage = ({ data }: MessageEvent<PageToEncode>) => {
  encode(data.picture).then(
    (page) => self.postMessage({ requestId: data.requestId, page }),
    (error: unknown) => self.postMessage({ requestId: data.requestId, reason: error instanceof Error ? error.message : String(error) }),
  )
}

async function encode(picture: ImageBitmap): Promise<EncodedPage> {
  const { width: widthPx, height: heightPx } = picture
  const thumbWidth = Math.min(widthPx, THUMB_WIDTH_PX)
  const thumb = drawn(picture, thumbWidth, Math.max(1, Math.round((heightPx * thumbWidth) / widthPx)))
  const whole = drawn(picture, widthPx, heightPx)
  picture.close()
  return { file: await whole.convertToBlob({ type: 'image/png' }), thumb: await thumb.convertToBlob({ type: 'image/png' }), widthPx, heightPx }
}

function drawn(picture: ImageBitmap, widthPx: number, heightPx: number): OffscreenCanvas {
  const canvas = new OffscreenCanvas(widthPx, heightPx)
  const pen = canvas.getContext('2d')
  if (pen === null) throw new Error('this browser refused a 2-D canvas')
  pen.imageSmoothingQuality = 'high'
  // Paper is white wherever a page says nothing.
  pen.fillStyle = '#fff'
  pen.fillRect(0, 0, widthPx, heightPx)
  pen.drawImage(picture, 0, 0, widthPx, heightPx)
  return canvas
}
