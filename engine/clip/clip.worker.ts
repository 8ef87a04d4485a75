/// <reference lib="webworker" />
// Plays one clip on a thread of its own: each picture is posted when it is due, whatever the page does.
import { ClipClock } from '../../core/clip/clip-clock.ts'
import type { PortFrame } from '../protocol.ts'
import type { ClipReport, ClipWish, FromClip, ToClip } from './clip-protocol.ts'
import type { ClipPicture, MovingPictures } from './moving-pictures.ts'
import { openClip } from './open-clip.ts'

declare const self: DedicatedWorkerGlobalScope

/** Pictures that are ready before they are due. */
const AHEAD = 4
const REPORT_EVERY_MS = 250
/** Timers are asked a little early: they come late rather than early. */
const EARLY_MS = 1

let pictures: MovingPictures | null = null
let clock: ClipClock | null = null
let port: MessagePort | null = null
const ready: ClipPicture[] = []
/** Grows with each seek: what was asked for before is let go. */
let turn = 0
let isFilling = false
let isAtEnd = false
/** Whether something was posted since the last seek. */
let isShown = false
let timer = 0
let lastReportMs = -Infinity
let size = { widthPx: 0, heightPx: 0 }
let skipped = 0
let damage: ClipReport['damage'] = null
/** The newest picture that was decoded since the last seek. */
let lastGoodUs: number | null = null
const free: Uint8Array<ArrayBuffer>[] = []
const early: ToClip[] = []

self.onmessage = ({ data }: MessageEvent<ToClip>) => {
  handle(data).catch((error: unknown) => post({ type: 'failed', reason: error instanceof Error ? error.message : String(error) }))
}

async function handle(message: ToClip): Promise<void> {
  if (message.type === 'start') return start(message)
  // A file may take a while to open: what was asked for meanwhile is done then.
  if (clock === null || pictures === null) {
    early.push(message)
    return
  }
  const now = performance.now()
  if (message.type === 'play') {
    const wasOver = clock.at(now).isOver
    clock.play(now)
    if (wasOver) begin()
  } else if (message.type === 'pause') clock.pause(now)
  else if (message.type === 'restart') {
    clock.restart(now)
    begin()
  } else {
    const before = clock.range
    const range = rangeOf(message.wish, pictures)
    clock.setRange(range, now)
    if (range.fromUs !== before.fromUs || range.toUs !== before.toUs || range.loops !== before.loops) {
      clock.restart(now)
      begin()
    }
  }
  report(true)
  step()
}

async function start({ url, port: given, wish, plays }: Extract<ToClip, { type: 'start' }>): Promise<void> {
  port = given
  given.onmessage = ({ data }: MessageEvent<{ type: 'return'; data: Uint8Array<ArrayBuffer> } | { type: 'stop' }>) => {
    if (data.type === 'return') free.push(data.data)
    else self.close()
  }
  const response = await fetch(url)
  if (!response.ok) throw new Error(`the file could not be read (${response.status})`)
  pictures = await openClip(await response.blob())
  if (pictures.cutOff !== null) damage = { fromUs: pictures.durationUs, reason: pictures.cutOff }
  clock = new ClipClock(rangeOf(wish, pictures))
  if (plays) clock.play(performance.now())
  begin()
  for (const message of early.splice(0)) await handle(message)
}

function rangeOf({ fromUs, toUs, rate, loops }: ClipWish, whole: MovingPictures) {
  const durationUs = Math.min(whole.durationUs, damage?.fromUs ?? Infinity)
  const from = Math.min(fromUs, durationUs - 1)
  const to = Math.min(toUs ?? durationUs, durationUs)
  // A part that a shorter file does not have is the rest of it.
  return { fromUs: from, toUs: to > from ? to : durationUs, rate, loops }
}

/** Lets go what was ready, and begins at the beginning of the part. */
function begin(): void {
  if (pictures === null || clock === null) return
  turn += 1
  for (const { picture } of ready.splice(0)) free.push(picture.data as Uint8Array<ArrayBuffer>)
  isAtEnd = false
  isShown = false
  lastGoodUs = null
  pictures.seek(clock.range)
  void fill()
}

/** Keeps some pictures ready. */
async function fill(): Promise<void> {
  if (isFilling || pictures === null) return
  isFilling = true
  let fault: string | null = null
  try {
    while (ready.length < AHEAD && !isAtEnd) {
      const asked = turn
      const picture = await pictures.next(takeBuffer)
      // A seek meanwhile: what came belongs to the part before.
      if (asked !== turn) continue
      if (picture === null) isAtEnd = true
      else {
        lastGoodUs = picture.mediaUs
        ready.push(picture)
      }
      step()
    }
  } catch (error) {
    fault = error instanceof Error ? error.message : String(error)
  }
  isFilling = false
  // Only now: playing on from the start fills again.
  if (fault !== null) endAt(fault)
}

/** The rest cannot be decoded: what comes before it is played from now on, as if the file ended there. */
function endAt(reason: string): void {
  const fromUs = lastGoodUs
  if (pictures === null || clock === null || fromUs === null || fromUs <= clock.range.fromUs || fromUs >= (damage?.fromUs ?? Infinity)) {
    post({ type: 'failed', reason })
    return
  }
  damage = { fromUs, reason }
  const now = performance.now()
  clock.setRange({ ...clock.range, toUs: Math.min(clock.range.toUs, fromUs) }, now)
  clock.restart(now)
  begin()
  report(true)
}

function takeBuffer(byteLength: number): Uint8Array<ArrayBuffer> {
  const index = free.findIndex((buffer) => buffer.length === byteLength)
  if (index < 0) {
    free.length = 0
    return new Uint8Array(byteLength)
  }
  return free.splice(index, 1)[0]!
}

/** Posts what is due, and comes back when the next is. */
function step(): void {
  clearTimeout(timer)
  if (clock === null) return
  const now = performance.now()
  let due: ClipPicture | null = null
  for (;;) {
    const next = ready[0]
    if (next === undefined) break
    const dueMs = clock.dueMs(next.lap, next.mediaUs)
    const isDue = !isShown && due === null ? true : dueMs !== null && dueMs <= now + EARLY_MS
    if (!isDue) break
    ready.shift()
    if (due !== null) {
      skipped += 1
      free.push(due.picture.data as Uint8Array<ArrayBuffer>)
    }
    due = next
    // The first one after a seek is shown at once, also while paused.
    if (dueMs === null) break
  }
  if (due !== null) send(due)
  report(due !== null && !isShown)
  if (due !== null) isShown = true
  void fill()
  const next = ready[0]
  const dueMs = next === undefined ? null : clock.dueMs(next.lap, next.mediaUs)
  if (dueMs !== null) timer = setTimeout(step, Math.max(0, dueMs - performance.now() - EARLY_MS)) as unknown as number
  else if (clock.isPlaying) timer = setTimeout(step, REPORT_EVERY_MS) as unknown as number
}

function send({ picture, mediaUs }: ClipPicture): void {
  const { widthPx, heightPx } = picture
  size = { widthPx, heightPx }
  const codes: PortFrame['codes'] = picture.format === 'i420' ? { format: 'i420', matrix: picture.matrix, range: picture.range } : { format: 'rgba' }
  const data = picture.data as Uint8Array<ArrayBuffer>
  port?.postMessage({ frameNumber: -1, mediaUs, codes, widthPx, heightPx, data } satisfies PortFrame, [data.buffer])
}

function report(isNow: boolean): void {
  const now = performance.now()
  if (clock === null || pictures === null || (!isNow && now - lastReportMs < REPORT_EVERY_MS)) return
  lastReportMs = now
  const { mediaUs, isOver } = clock.at(now)
  post({ type: 'report', report: { isPlaying: clock.isPlaying && !isOver, isOver, mediaUs, durationUs: pictures.durationUs, ...size, skipped, damage } })
}

function post(message: FromClip): void {
  self.postMessage(message)
}
