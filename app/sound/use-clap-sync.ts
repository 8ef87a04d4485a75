// Measures how far the voice is ahead of the picture, by five claps that camera and microphone both take in.
import { onScopeDispose, ref } from 'vue'
import { CHUNK_FRAMES, CHUNK_MS } from '../../core/sound/voice-chunk.ts'
import { offsetOf, type ClapOffset } from '../../core/sync/clap-offset.ts'
import { evenTimes, type SeenPicture } from '../../core/sync/clap-picture.ts'
import { findClaps } from '../../core/sync/clap-sound.ts'
import { useEngineStore } from '../engine/engine.store.ts'
import { useFiguresStore } from '../engine/figures.store.ts'
import { cueClaps } from '../inputs/standin-threads.ts'
import { useVoiceStore } from './voice.store.ts'

export const CLAPS_WANTED = 5
/** Nobody needs longer for five claps. */
const LONGEST_MS = 15_000
const LOOK_EVERY_MS = 400
/** The last clap is seen a little after it was heard, and has to die away. */
const AFTER_LAST_MS = 900

export type ClapSync =
  | { readonly kind: 'idle' }
  | { readonly kind: 'listening'; readonly heard: number }
  | { readonly kind: 'done'; readonly offset: ClapOffset }
  /** `heard`: claps that were heard; `agreed`: of them, seen at the same distance. */
  | { readonly kind: 'failed'; readonly heard: number; readonly agreed: number }

/** `inputId` is the camera that sees the claps. */
export function useClapSync(inputId: () => string | null) {
  const engine = useEngineStore()
  const figures = useFiguresStore()
  const voice = useVoiceStore()
  const state = ref<ClapSync>({ kind: 'idle' })
  let timer: number | null = null

  function stop(): void {
    if (timer !== null) window.clearInterval(timer)
    timer = null
    voice.listen(null)
    figures.watchMotion(null, null)
  }

  /** Listens and looks until five claps were heard, or for a quarter of a minute. */
  function start(): void {
    stop()
    state.value = { kind: 'listening', heard: 0 }
    const pictures: SeenPicture[] = []
    const chunks: Float32Array[] = []
    /** When the sound began: chunks come late at times, never early. */
    let beginMs = Infinity
    figures.watchMotion(inputId(), (sample) => pictures.push(sample))
    voice.listen((atMs, samples) => {
      chunks.push(samples)
      beginMs = Math.min(beginMs, atMs - chunks.length * CHUNK_MS)
    })
    cueClaps()
    const startMs = performance.now()
    timer = window.setInterval(() => {
      const claps = findClaps(joined(chunks))
      state.value = { kind: 'listening', heard: claps.length }
      const isOver = claps.length >= CLAPS_WANTED && chunks.length * CHUNK_MS - claps.at(-1)! > AFTER_LAST_MS
      if (!isOver && performance.now() - startMs < LONGEST_MS) return
      stop()
      const found = offsetOf(
        claps.map((ms) => beginMs + ms),
        evenTimes(pictures),
      )
      // The picture still has to be made before it leaves.
      const makingMs = engine.stats?.airMs || (engine.stats?.frameMs ?? 0)
      state.value =
        'offsetMs' in found
          ? { kind: 'done', offset: { ...found, offsetMs: found.offsetMs + makingMs } }
          : { kind: 'failed', heard: claps.length, agreed: found.claps }
    }, LOOK_EVERY_MS)
  }

  function cancel(): void {
    stop()
    state.value = { kind: 'idle' }
  }

  onScopeDispose(stop)
  return { state, start, cancel }
}

function joined(chunks: readonly Float32Array[]): Float32Array {
  const all = new Float32Array(chunks.length * CHUNK_FRAMES)
  chunks.forEach((chunk, index) => all.set(chunk, index * CHUNK_FRAMES))
  return all
}
