// Frames of the browser's as plain bytes: I420 as it is, everything else as straight RGBA.
import type { YcbcrMatrix } from '../core/colour/ycbcr.ts'
import { i420ByteLength, type Picture } from '../core/picture/picture.ts'

/** Copies what is visible of a frame; `take` gives memory of a length. The frame stays its owner's. */
export async function copyFrame(frame: VideoFrame, take: (byteLength: number) => Uint8Array<ArrayBuffer>): Promise<Picture> {
  const { width: widthPx, height: heightPx } = frame.visibleRect ?? { width: frame.codedWidth, height: frame.codedHeight }
  const size = { widthPx, heightPx }
  if (frame.format === 'I420' || frame.format === 'NV12') {
    const data = take(i420ByteLength(widthPx, heightPx))
    await (frame.format === 'I420' ? copyI420(frame, data, widthPx, heightPx) : copyNv12(frame, data, widthPx, heightPx))
    return { format: 'i420', ...size, matrix: matrixOf(frame), range: frame.colorSpace.fullRange === true ? 'full' : 'limited', data }
  }
  const data = take(widthPx * heightPx * 4)
  await frame.copyTo(data, { format: 'RGBA' } as VideoFrameCopyToOptions)
  return { format: 'rgba', ...size, data }
}

/** HD pictures without a stated matrix are BT.709, smaller ones BT.601 (common practice, no source). */
function matrixOf(frame: VideoFrame): YcbcrMatrix {
  const stated = frame.colorSpace.matrix
  if (stated === 'bt709') return 'bt709'
  if (stated === 'smpte170m' || stated === 'bt470bg') return 'bt601'
  return frame.codedHeight >= 720 ? 'bt709' : 'bt601'
}

async function copyI420(frame: VideoFrame, data: Uint8Array, width: number, height: number): Promise<void> {
  const chromaWidth = Math.ceil(width / 2)
  const chromaLength = chromaWidth * Math.ceil(height / 2)
  await frame.copyTo(data, {
    layout: [
      { offset: 0, stride: width },
      { offset: width * height, stride: chromaWidth },
      { offset: width * height + chromaLength, stride: chromaWidth },
    ],
  })
}

async function copyNv12(frame: VideoFrame, data: Uint8Array, width: number, height: number): Promise<void> {
  const chromaWidth = Math.ceil(width / 2)
  const chromaLength = chromaWidth * Math.ceil(height / 2)
  const packed = new Uint8Array(width * height + 2 * chromaLength)
  await frame.copyTo(packed, {
    layout: [
      { offset: 0, stride: width },
      { offset: width * height, stride: chromaWidth * 2 },
    ],
  })
  data.set(packed.subarray(0, width * height))
  for (let i = 0; i < chromaLength; i += 1) {
    data[width * height + i] = packed[width * height + 2 * i]!
    data[width * height + chromaLength + i] = packed[width * height + 2 * i + 1]!
  }
}
