// The clips of the show, and where each is, by its input.
import { shallowRef } from 'vue'
import type { ClipReport } from '../../engine/clip/clip-protocol.ts'
import { ClipManager } from '../../engine/live/clip-manager.ts'
import type { LiveSink } from './live-sink.ts'

export function useClips({ supply, drop, tell }: LiveSink) {
  const reports = shallowRef<Readonly<Record<string, ClipReport>>>({})
  const manager = new ClipManager(
    {
      makeWorker: () => new Worker(new URL('../../engine/clip/clip.worker.ts', import.meta.url), { type: 'module', name: 'clip' }),
      assetUrl: (asset) => new URL(`/api/assets/${asset}`, location.href).href,
    },
    {
      onSupply: (inputId, pictures) => supply(inputId, pictures, false),
      onGone: drop,
      onState: tell,
      onReport: (inputId, report) => (reports.value = { ...reports.value, [inputId]: report }),
    },
  )
  return { manager, reports }
}
