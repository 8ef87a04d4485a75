import { i420ByteLength, type I420Picture } from './picture.ts'

/** Quarter turns, clockwise, in degrees. */
export type QuarterTurn = 0 | 90 | 180 | 270

/** An I420 picture turned clockwise, written into `out`, which has room for it. The same picture for 0. */
export function turnI420(picture: I420Picture, turn: QuarterTurn, out: Uint8Array): I420Picture {
  if (turn === 0) return picture
  const { widthPx, heightPx, data } = picture
  const chromaWidth = Math.ceil(widthPx / 2)
  const chromaHeight = Math.ceil(heightPx / 2)
  const lumaLength = widthPx * heightPx
  const chromaLength = chromaWidth * chromaHeight
  turnPlane(data, 0, widthPx, heightPx, turn, out)
  turnPlane(data, lumaLength, chromaWidth, chromaHeight, turn, out)
  turnPlane(data, lumaLength + chromaLength, chromaWidth, chromaHeight, turn, out)
  const [nextWidth, nextHeight] = turn === 180 ? [widthPx, heightPx] : [heightPx, widthPx]
  return { ...picture, widthPx: nextWidth, heightPx: nextHeight, data: out.subarray(0, i420ByteLength(nextWidth, nextHeight)) }
}

/** Turned planes are as long as they were, so they begin where they began. */
function turnPlane(from: Uint8Array, at: number, width: number, height: number, turn: QuarterTurn, out: Uint8Array): void {
  for (let y = 0; y < height; y += 1) {
    let to = turn === 90 ? at + height - 1 - y : turn === 180 ? at + (height - y) * width - 1 : at + (width - 1) * height + y
    const step = turn === 90 ? height : turn === 180 ? -1 : -height
    for (let x = 0; x < width; x += 1) {
      out[to] = from[at + y * width + x]!
      to += step
    }
  }
}
