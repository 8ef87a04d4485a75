// A still screen sends one picture when its sharing begins, and now and then a browser loses it: it counts on the next, which never comes.
// Seen with Chromium 150 in about one of thirty shared tabs.

/** How long the first asking waits for its picture; each later one waits twice as long, up to `LONGEST_MS`: a window may be folded away. */
const WAIT_MS = 800
const LONGEST_MS = 8000

/**
 * Asks a track for a picture until one is given. Whoever begins to read makes the browser send one to all who read, so a copy of the track
 * is read for as long as that takes. Returns what ends the asking.
 */
export function askForPicture(track: MediaStreamTrack, streamOf: (track: MediaStreamTrack) => ReadableStream<VideoFrame>): () => void {
  let end: (() => void) | null = null
  let timer: ReturnType<typeof setTimeout> | null = null
  let waitMs = WAIT_MS
  const ask = () => {
    end?.()
    end = readOne(track.clone(), streamOf, stop)
    timer = setTimeout(ask, waitMs)
    waitMs = Math.min(waitMs * 2, LONGEST_MS)
  }
  const stop = () => {
    if (timer !== null) clearTimeout(timer)
    end?.()
    end = null
  }
  timer = setTimeout(ask, WAIT_MS)
  return stop
}

/** Reads one picture of a track of its own; `onOver` is called when it is there or the track has ended. Returns what gives it up. */
function readOne(track: MediaStreamTrack, streamOf: (track: MediaStreamTrack) => ReadableStream<VideoFrame>, onOver: () => void): () => void {
  const reader = streamOf(track).getReader()
  let isGivenUp = false
  const over = () => {
    if (!isGivenUp) onOver()
  }
  void reader.read().then(({ value }) => {
    value?.close()
    over()
  }, over)
  return () => {
    isGivenUp = true
    void reader.cancel().catch(() => undefined)
    track.stop()
  }
}
