// The engine's life: it is started, watched, and started again when it dies. What it shows, sends and measures is in the stores beside this one.
import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { SourceInfo } from '../../core/picture/source.ts'
import type { SeenPicture } from '../../core/sync/clap-picture.ts'
import { StudioEngine } from '../../engine/client/studio-engine.ts'
import { Watchdog } from '../../engine/client/watchdog.ts'
import type { ExecutorPin, ExecutorState } from '../../engine/executors.ts'
import type { EngineStats, Scopes } from '../../engine/protocol.ts'
import { engineFiles } from './engine-files.ts'
import { Recovery } from './recovery.ts'
import { storedPin, storePin } from './use-executor.ts'

/** What other stores hear of the engine. */
export interface EngineListener {
  /** The engine was started anew and knows nothing: tell it everything. In the order in which listeners came. */
  readonly onStarted?: () => void
  /** An input's pictures are over; `fault`: why they cannot be read. */
  readonly onSupplyEnded?: (inputId: string, fault: string | null) => void
  readonly onScopes?: (inputId: string, scopes: Scopes) => void
  readonly onMotion?: (sample: SeenPicture) => void
}

const timers = {
  nowMs: () => performance.now(),
  setTimer: (run: () => void, delayMs: number) => window.setTimeout(run, delayMs),
  clearTimer: (timer: number) => window.clearTimeout(timer),
}

export const useEngineStore = defineStore('engine', () => {
  const stats = shallowRef<EngineStats | null>(null)
  const infos = shallowRef<ReadonlyMap<string, SourceInfo>>(new Map())
  const executor = shallowRef<ExecutorState | null>(null)
  const pin = ref<ExecutorPin>(storedPin())
  const hasFirstPicture = ref(false)
  const personFailure = ref<string | null>(null)
  const assetFailure = ref<string | null>(null)
  /** Why the engine cannot run; it is tried again by itself. */
  const failure = ref<string | null>(null)
  /** Why a frame could not be made; the engine went on. */
  const faulted = ref<string | null>(null)
  /** Whether the engine had to be started again because it did not answer. */
  const hasRestarted = ref(false)
  /** Grows when the engine starts anew, so that views open their pictures again. */
  const generation = ref(0)
  const listeners: EngineListener[] = []

  const recovery = new Recovery(timers, restart, (reason) => (failure.value = reason))
  const watchdog = new Watchdog(
    { setInterval: (run, everyMs) => window.setInterval(run, everyMs), clearInterval: (timer) => window.clearInterval(timer), nowMs: timers.nowMs },
    silent,
  )
  let isWatched = false
  let engine = makeEngine()

  function makeEngine(): StudioEngine {
    const made = new StudioEngine(engineFiles, pin.value, {
      onReady: () => watchdog.note(),
      onExecutor: (state) => (executor.value = state),
      onFirstPicture: () => (hasFirstPicture.value = true),
      onSources: (next) => (infos.value = next),
      onStats: (next) => {
        stats.value = next
        watchdog.note()
      },
      onFaulted: (reason) => (faulted.value = reason),
      onScopes: (inputId, next) => listeners.forEach(({ onScopes }) => onScopes?.(inputId, next)),
      onMotion: (sample) => listeners.forEach(({ onMotion }) => onMotion?.(sample)),
      onPersonFailed: (reason) => (personFailure.value = reason),
      onAssetFailed: (_asset, reason) => (assetFailure.value = reason),
      onSupplyEnded: (inputId, fault) => listeners.forEach(({ onSupplyEnded }) => onSupplyEnded?.(inputId, fault)),
      onGone: silent,
      onFailed: (reason) => recovery.failed(reason),
    })
    made.views.setPageHidden(document.hidden)
    return made
  }

  document.addEventListener('visibilitychange', () => engine.views.setPageHidden(document.hidden))

  /** The engine is gone, or has not answered for so long that it never will. */
  function silent(): void {
    // What it last reported is no longer true.
    stats.value = null
    hasRestarted.value = true
    recovery.failed('it does not answer')
  }

  /** Starts the engine's worker anew after it died. Meetings keep their sessions, and show the card until the new one's pictures come. */
  function restart(): void {
    watchdog.stop()
    recovery.cancel()
    engine.dispose()
    engine = makeEngine()
    failure.value = null
    generation.value += 1
    isWatched = false
    for (const { onStarted } of listeners) onStarted?.()
  }

  /** Expects signs of life from now on: the engine reports only once it has a show. */
  function expectReports(): void {
    if (!isWatched) watchdog.start()
    isWatched = true
  }

  /** Lets the processor or the graphics card make the pictures, or whichever is faster. */
  function pinExecutor(next: ExecutorPin): void {
    pin.value = next
    storePin(next)
    engine.pinExecutor(next)
  }

  return {
    stats,
    infos,
    executor,
    pin,
    pinExecutor,
    hasFirstPicture,
    personFailure,
    assetFailure,
    failure,
    faulted,
    hasRestarted,
    generation,
    restart,
    expectReports,
    /** The engine that runs now. */
    calls: () => engine,
    listen: (listener: EngineListener) => void listeners.push(listener),
  }
})
