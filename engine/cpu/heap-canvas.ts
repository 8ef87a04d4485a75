import type { PixelRect } from '../../core/picture/picture.ts'
import type { Kernels } from './heap.ts'

/** Packed premultiplied pixels in the heap that are drawn into: pixel (x, y) lies at `at` + y · `strideBytes` + 4x. */
export interface HeapCanvas {
  readonly at: number
  readonly strideBytes: number
}

/** A canvas that stores the pixels of one rectangle, starting at byte `at`. */
export function canvasOver(at: number, { left, top, right }: PixelRect): HeapCanvas {
  const strideBytes = (right - left) * 4
  return { at: at - top * strideBytes - left * 4, strideBytes }
}

/** Gives every pixel of a rectangle one packed value. */
export function fillRect(kernels: Kernels, canvas: HeapCanvas, { left, top, right, bottom }: PixelRect, value: number): void {
  for (let y = top; y < bottom; y += 1) kernels.fillRow(canvas.at + y * canvas.strideBytes + left * 4, right - left, value)
}

/** Copies a rectangle from one canvas to the same place of another. */
export function copyRect(kernels: Kernels, from: HeapCanvas, to: HeapCanvas, { left, top, right, bottom }: PixelRect): void {
  if (right <= left || bottom <= top) return
  const bytes = (right - left) * 4
  if (from.strideBytes === to.strideBytes) {
    const at = top * to.strideBytes + left * 4
    kernels.copyRows(from.at + at, to.at + at, bytes, to.strideBytes, bottom - top)
    return
  }
  for (let y = top; y < bottom; y += 1) kernels.copyRows(from.at + y * from.strideBytes + left * 4, to.at + y * to.strideBytes + left * 4, bytes, 0, 1)
}
