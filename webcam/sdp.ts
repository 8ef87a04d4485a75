/**
 * Adds a start bitrate to every video format of a session description, so that the first second
 * is already sharp. The parameter is the browser engine's own (x-google-start-bitrate).
 */
export function withStartBitrate(sdp: string, kilobits: number): string {
  const lines = sdp.split('\r\n')
  const formats = new Set(lines.flatMap((line) => /^a=rtpmap:(\d+) (?:H264|VP8|VP9|AV1)\//i.exec(line)?.[1] ?? []))
  const withFmtp = new Set<string>()
  const result = lines.map((line) => {
    const format = /^a=fmtp:(\d+) /.exec(line)?.[1]
    if (format === undefined || !formats.has(format)) return line
    withFmtp.add(format)
    return `${line};x-google-start-bitrate=${kilobits}`
  })
  return result
    .flatMap((line) => {
      const format = /^a=rtpmap:(\d+) /.exec(line)?.[1]
      const needsOne = format !== undefined && formats.has(format) && !withFmtp.has(format)
      return needsOne ? [line, `a=fmtp:${format} x-google-start-bitrate=${kilobits}`] : [line]
    })
    .join('\r\n')
}

const CAPTURE_TIME = 'http://www.webrtc.org/experiments/rtp-hdrext/abs-capture-time'

interface HeaderExtension {
  readonly uri: string
  direction: string
}

/** Asks that pictures carry the time at which they were taken in; a browser that cannot goes on without. */
export function stampCaptureTimes(connection: RTCPeerConnection): void {
  for (const transceiver of connection.getTransceivers()) {
    const able = transceiver as RTCRtpTransceiver & {
      getHeaderExtensionsToNegotiate?: () => HeaderExtension[]
      setHeaderExtensionsToNegotiate?: (extensions: HeaderExtension[]) => void
    }
    const extensions = able.getHeaderExtensionsToNegotiate?.() ?? []
    for (const extension of extensions) if (extension.uri === CAPTURE_TIME) extension.direction = 'sendrecv'
    if (extensions.length > 0) able.setHeaderExtensionsToNegotiate?.(extensions)
  }
}
