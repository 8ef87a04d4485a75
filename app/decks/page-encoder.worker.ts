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
  const thumb = small(picture)
  // The picture itself becomes the canvas: nothing is copied.
  const whole = new OffscreenCanvas(widthPx, heightPx)
  const shown = whole.getContext('bitmaprenderer')
  if (shown === null) throw new Error('this browser refused a canvas')
  shown.transferFromImageBitmap(picture)
  const file = await whole.convertToBlob({ type: 'image/png' })
  return { file, thumb: await thumb.convertToBlob({ type: 'image/jpeg', quality: 0.85 }), widthPx, heightPx }
}

function small(picture: ImageBitmap): OffscreenCanvas {
  const widthPx = Math.min(picture.width, THUMB_WIDTH_PX)
  const canvas = new OffscreenCanvas(widthPx, Math.max(1, Math.round((picture.height * widthPx) / picture.width)))
  const pen = canvas.getContext('2d')
  if (pen === null) throw new Error('this browser refused a 2-D canvas')
  pen.imageSmoothingQuality = 'high'
  // Paper is white wherever a page says nothing.
  pen.fillStyle = '#fff'
  pen.fillRect(0, 0, canvas.width, canvas.height)
  pen.drawImage(picture, 0, 0, canvas.width, canvas.height)
  return canvas
}
