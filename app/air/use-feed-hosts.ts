// Who gets the feed: pages with the driver's script tag, by way of the server, and pages that the extension watches over.
import { ref, watch } from 'vue'
import type { FeedFormat, FromStudio, ToStudio } from '../../webcam/signal.ts'
import type { Transport } from '../../webcam/transport/transport.ts'
import { StudioHost, type VoiceSender } from '../../webcam/host/studio-host.ts'

/** `format` is that of the show on air; `onTaken` hears that another tab sends the feed now. */
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

  /** Sends a track, or none. `isAgain`: the feed ran before, and must not take another tab's place. */
  function setFeed(track: MediaStreamTrack | null, isAgain = false): void {
    for (const host of hosts) host.setFeed(track, isAgain, format())
  }

  /** Says again whether the feed runs, after a way to the meetings came back. */
  function announce(): void {
    for (const host of hosts) host.announce()
  }

  watch(format, (next, before) => {
    const isSame = next?.widthPx === before?.widthPx && next?.heightPx === before?.heightPx && next?.frameRate === before?.frameRate
    if (next !== undefined && !isSame) for (const host of hosts) host.setFormat(next)
  })

  return { meetingCount, setFeed, announce }
}
