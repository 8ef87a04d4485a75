/** The codec string of baseline H.264 at the lowest level that takes pictures of a size at 60 a second (ITU-T H.264 Table A-1, from memory). */
export function h264Codec(widthPx: number, heightPx: number): string {
  const macroblocks = Math.ceil(widthPx / 16) * Math.ceil(heightPx / 16)
  const level = macroblocks <= 3600 ? '20' : macroblocks <= 8192 ? '2a' : '34'
  return `avc1.4200${level}`
}
