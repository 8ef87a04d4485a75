// Sends the feed to meetings: to pages with the driver's script tag (through the server) and to pages the extension serves.
import { ref, watch } from 'vue'
import type { FeedFormat, FromStudio, ToStudio } from '../../webcam/signal.ts'
import type { Transport } from '../../webcam/transport/transport.ts'
import { StudioHost, type VoiceSender } from '../../webcam/host/studio-host.ts'

/** `format`: of the show on air. `onTaken`: another tab took the feed over. */
export function useFeedHosts(
  transports: readonly Transport<FromStudio, ToStudio>[],
  voice: VoiceSender | null,
  format: () => FeedFormat | undefined,
  onTaken: () => void,
) {
  const meetingCount = ref(0)
  const counts = transports.map(() => 0)
  const hosts = transports.map(
    (transport, index) =>
      new StudioHost(
        transport,
        {
          onCount: (count) => {
            counts[index] = count
            meetingCount.value = counts.reduce((sum, each) => sum + each, 0)
          },
          onTaken,
        },
        voice,
      ),
  )

  /** Sends a track; null for none. `isAgain`: the feed resumes after a reload and must not take over from another tab. */
  function setFeed(track: MediaStreamTrack | null, isAgain = false): void {
    for (const host of hosts) host.setFeed(track, isAgain, format())
  }

  /** Announces the feed again after a connection came back. */
  function announce(): void {
    for (const host of hosts) host.announce()
  }

  watch(format, (next, before) => {
    const isSame = next?.widthPx === before?.widthPx && next?.heightPx === before?.heightPx && next?.frameRate === before?.frameRate
    if (next !== undefined && !isSame) for (const host of hosts) host.setFormat(next)
  })

  return { meetingCount, setFeed, announce }
}
