// The running engine, its inputs and its feed, as the views see them. One file, though a long one: whoever wants something of the engine finds it here.
import { isCamera } from '../../core/inputs/camera.ts'
import type { SourceInfo } from '../../core/picture/source.ts'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { visibleInputs } from '../../core/show/edits.ts'
import type { SeenPicture } from '../../core/sync/clap-picture.ts'
import { withHeld } from '../../core/show/held.ts'
import type { Show } from '../../core/show/show.ts'
import { StudioEngine } from '../../engine/client/studio-engine.ts'
import { WEBCAM } from '../../engine/output-order.ts'
import { Watchdog } from '../../engine/client/watchdog.ts'
import type { ExecutorPin, ExecutorState } from '../../engine/executors.ts'
import type { EngineStats, LayerPlace, Scopes } from '../../engine/protocol.ts'
import { useShowStore } from '../show/show.store.ts'
import { useVoiceStore } from '../sound/voice.store.ts'
import { useSitesStore } from '../sites/sites.store.ts'
import { foundHeads } from './found-heads.ts'
import { exposeFigures } from './diagnostics.ts'
import { engineFiles } from './engine-files.ts'
import { storedPin, storePin } from './use-executor.ts'
import { cueClaps } from './standin-threads.ts'
import { StudioLink } from './studio-link.ts'
import { useAir } from './use-air.ts'
import { useCameras } from './use-cameras.ts'
import { inputsSeenIn, useClips } from './use-clips.ts'
import { useScreens } from './use-screens.ts'
import { useFeedHosts } from './use-feed-hosts.ts'

const RECOVER_AGAIN_AFTER_MS = 10_000
const FIRST_RETRY_MS = 2000
const MOST_RETRY_MS = 60_000

export const useEngineStore = defineStore('engine', () => {
  const showStore = useShowStore()
  const stats = shallowRef<EngineStats | null>(null)
  const infos = shallowRef<ReadonlyMap<string, SourceInfo>>(new Map())
  const scopes = shallowRef<Scopes | null>(null)
  const executor = shallowRef<ExecutorState | null>(null)
  const pin = ref<ExecutorPin>(storedPin())
  const personFailure = ref<string | null>(null)
  let watched: { readonly inputId: string; readonly layer: LayerPlace | null } | null = null
  /** Inputs that a view shows by themselves, whether a layer uses them or not. */
  const lookedAt = shallowRef<readonly string[]>([])
  let onMotion: ((sample: SeenPicture) => void) | null = null
  const air = useAir()
  const isFeedOn = computed(() => air.air.value !== null)
  const hasFirstPicture = ref(false)
  const failure = ref<string | null>(null)
  const assetFailure = ref<string | null>(null)
  const isServerReached = ref(false)
  /** Why a frame could not be made; the engine went on. */
  const faulted = ref<string | null>(null)
  /** Whether the engine had to be started again because it did not answer. */
  const hasRestarted = ref(false)
  /** Whether another tab took the feed over. */
  const isFeedTaken = ref(false)
  /** Whether the feed was just started and no meeting has been told of. */
  const isFeedNew = ref(false)
  /** Grows when the engine starts anew, so that views open their pictures again. */
  const generation = ref(0)
  const canFeed = 'MediaStreamTrackGenerator' in window && 'MediaStreamTrackProcessor' in window

  const link = new StudioLink({
    onOpen: (isOpen) => {
      isServerReached.value = isOpen
      if (!isOpen) return
      hosts.announce()
      showStore.flush()
    },
    onEditor: (showId, isEditor) => {
      if (showId === showStore.showId) showStore.setEditor(isEditor)
    },
  })
  showStore.onYield((showId) => link.yield(showId))
  const voice = useVoiceStore()
  const hosts = useFeedHosts([link.signalling, useSitesStore().transport], voice, () => air.air.value?.show.canvas, feedTaken)
  let lastFailureMs = -Infinity
  /** How long the engine that failed again is left alone; 0 while it runs well. */
  let retryMs = 0
  let retryTimer: number | undefined
  const watchdog = new Watchdog(
    { setInterval: (run, everyMs) => window.setInterval(run, everyMs), clearInterval: (timer) => window.clearInterval(timer), nowMs: () => performance.now() },
    silent,
  )
  /** The engine reports only once it has a show. */
  let isWatched = false
  let engine = makeEngine()
  const { cameras, ...cameraFigures } = useCameras(() => engine)
  const { screens, ...screenFigures } = useScreens(() => engine)
  const { clips, ...clipFigures } = useClips(() => engine)

  exposeFigures({
    stats: () => stats.value,
    hasPicture: () => hasFirstPicture.value,
    scopes: () => scopes.value,
    heads: () => [...foundHeads.value],
    executor: () => executor.value,
    cueClaps,
    simulateLoss: (isLost) => engine.simulateLoss(isLost),
  })

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
      onScopes: (inputId, next) => {
        if (inputId === watched?.inputId) scopes.value = next
      },
      onMotion: (sample) => onMotion?.(sample),
      onPersonFailed: (reason) => (personFailure.value = reason),
      onAssetFailed: (_asset, reason) => (assetFailure.value = reason),
      onSupplyEnded: (inputId, fault) => {
        cameras.ended(inputId, fault)
        screens.ended(inputId, fault)
      },
      onGone: silent,
      onFailed: recover,
    })
    made.setPageHidden(document.hidden)
    return made
  }

  watch(air.isCardWanted, (isWanted) => engine.setCard(isWanted))
  watch([air.pictured, air.held, air.onAirId, () => showStore.onAirId, () => showStore.sceneId, lookedAt], follow, { immediate: true })

  // The voice stays with what is on air, as the picture does.
  watch(air.air, (now) => voice.setOnAirShow(now?.show ?? null), { immediate: true, flush: 'sync' })

  /** Tells the engine and the cameras what is open and what is on air. */
  function follow(): void {
    const show = air.pictured.value
    if (show === null) return
    // The show on air may be the only one, with none open.
    const held = showStore.show === null ? null : air.held.value
    const now = air.air.value
    const showId = showStore.show === null ? (now?.showId ?? '') : (showStore.showId ?? '')
    const firstId = showStore.onAirId
    engine.follow({
      open: { showId, show },
      held: held === null || now === null ? null : { showId: now.showId, show: held },
      onAir: now !== null ? { showId: now.showId, sceneId: now.sceneId } : firstId === null ? null : { showId, sceneId: firstId },
    })
    const both = withHeld(show, held)
    cameras.follow(both, new Set([...visibleInputs(both), ...lookedAt.value]))
    screens.follow(both)
    clips.follow(both, new Set([...inputsSeenIn(both, [showStore.sceneId, air.air.value?.sceneId ?? null]), ...lookedAt.value]))
    engine.setCard(air.isCardWanted.value)
    if (!isWatched) watchdog.start()
    isWatched = true
  }

  watch(
    () => showStore.showId,
    (showId) => {
      if (showId === null) link.leave()
      else link.edit(showId, false)
    },
    { immediate: true },
  )
  document.addEventListener('visibilitychange', () => engine.setPageHidden(document.hidden))

  /** The engine is gone, or has not answered for so long that it never will. */
  function silent(): void {
    // What it last reported is no longer true.
    stats.value = null
    hasRestarted.value = true
    recover('it does not answer')
  }

  /** Starts again by itself after a failure. One that comes back at once is shown, and tried again after longer and longer. */
  function recover(reason: string): void {
    const now = performance.now()
    const isRepeated = now - lastFailureMs < RECOVER_AGAIN_AFTER_MS + retryMs
    lastFailureMs = now
    if (!isRepeated) {
      retryMs = 0
      restart()
      return
    }
    failure.value = reason
    retryMs = Math.min(MOST_RETRY_MS, retryMs === 0 ? FIRST_RETRY_MS : retryMs * 2)
    window.clearTimeout(retryTimer)
    retryTimer = window.setTimeout(restart, retryMs)
  }

  /** Starts the engine's worker anew after it died. Meetings keep their sessions, and show the card until the new one's pictures come. */
  function restart(): void {
    watchdog.stop()
    window.clearTimeout(retryTimer)
    engine.dispose()
    engine = makeEngine()
    failure.value = null
    generation.value += 1
    isWatched = false
    const show = air.pictured.value
    if (show === null) return
    follow()
    for (const { id } of withHeld(show, air.held.value).inputs.filter(isCamera)) cameras.retry(id)
    screens.restart()
    clips.restartAll(withHeld(show, air.held.value))
    if (watched !== null) engine.watch(watched.inputId, watched.layer)
    if (isFeedOn.value) hosts.setFeed(engine.openOutput(WEBCAM))
  }

  /** Measures an input's scopes until told otherwise. */
  function watchScopes(inputId: string | null, layer: LayerPlace | null): void {
    watched = inputId === null ? null : { inputId, layer }
    scopes.value = null
    engine.watch(inputId, layer)
  }

  /** Sends the scene that is first on air, or `sceneId`. Only the tab that edits the show may. */
  function startFeed(sceneId = showStore.onAirId): void {
    if (!canFeed || isFeedOn.value || !showStore.isEditor || sceneId === null) return
    air.take(sceneId)
    isFeedTaken.value = false
    isFeedNew.value = true
    hosts.setFeed(engine.openOutput(WEBCAM))
  }

  /** Brings a scene of the open show on air, in place of what is there. */
  function takeOnAir(sceneId: string): void {
    if (isFeedOn.value) air.take(sceneId)
    else showStore.setOnAir(sceneId)
  }

  const showsCard = computed(() => isFeedOn.value && (air.isCardWanted.value || stats.value?.feed.showsCard === true))

  /** Sends the holding card in place of what is on air, and what is on air again. */
  function toggleCard(): void {
    if (isFeedOn.value) air.isCardWanted.value = !air.isCardWanted.value
  }

  function stopFeed(): void {
    air.clear()
    isFeedNew.value = false
    hosts.setFeed(null)
    engine.closeOutput(WEBCAM.id)
  }

  /** Another tab sends the feed now, so this one's control must not say that it does. */
  function feedTaken(): void {
    air.clear()
    isFeedTaken.value = true
    isFeedNew.value = false
    hosts.setFeed(null)
    engine.closeOutput(WEBCAM.id)
  }

  // A page that is loaded anew goes on with what it had on air.
  void air.resume().then((isBack) => {
    if (isBack && canFeed) hosts.setFeed(engine.openOutput(WEBCAM), true)
  })

  /** Lets the processor or the graphics card make the pictures, or whichever is faster. */
  function pinExecutor(next: ExecutorPin): void {
    pin.value = next
    storePin(next)
    engine.pinExecutor(next)
  }

  /** Edits the show here instead of in another tab, once that has saved. */
  function takeOver(): void {
    if (showStore.showId === null) return
    showStore.claim()
    link.edit(showStore.showId, true)
  }

  return {
    stats,
    infos,
    ...cameraFigures,
    scopes,
    executor,
    pin,
    pinExecutor,
    personFailure,
    isFeedOn,
    isFeedNew,
    /** The scene of the open show that is on air, and the name of the one that is, wherever it is. */
    onAirId: air.onAirId,
    onAirName: air.sceneName,
    onAirShow: computed(() => air.air.value?.show ?? null),
    isOnAirHere: air.isHere,
    isOnAirShowOpen: computed(() => air.air.value !== null && air.air.value.showId === showStore.showId),
    onAirSceneId: computed(() => air.air.value?.sceneId ?? null),
    takeOnAir,
    toggleCard,
    isCardWanted: air.isCardWanted,
    /** Whether the audience sees the holding card in place of the scene: because the presenter wants it, or because there is no picture. */
    showsCard,
    meetingCount: hosts.meetingCount,
    hasFirstPicture,
    failure,
    assetFailure,
    isServerReached,
    faulted,
    hasRestarted,
    isFeedTaken,
    generation,
    canFeed,
    openView: (canvas: OffscreenCanvas, request: Parameters<StudioEngine['openView']>[1]) => engine.openView(canvas, request),
    changeView: (viewId: string, request: Parameters<StudioEngine['changeView']>[1]) => engine.changeView(viewId, request),
    closeView: (viewId: string) => engine.closeView(viewId),
    freeze: (inputId: string, isFrozen: boolean) => engine.freeze(inputId, isFrozen),
    pick: (inputId: string, x: number, y: number, beforeStepId: string | null, layer: LayerPlace | null) => engine.pick(inputId, x, y, beforeStepId, layer),
    grab: (inputId: string, beforeStepId: string | null, layer: LayerPlace | null) => engine.grab(inputId, beforeStepId, layer),
    cover: (show: Show, sceneId: string, widthPx: number, signal: AbortSignal) => engine.cover(show, sceneId, widthPx, signal),
    watchScopes,
    /** Hands on what moves in a camera's pictures until told otherwise; null: no longer. */
    watchMotion: (inputId: string | null, hear: ((sample: SeenPicture) => void) | null) => {
      onMotion = hear
      engine.watchMotion(inputId)
    },
    /** Tells which inputs a view shows by themselves. */
    lookAt: (inputIds: readonly string[]) => (lookedAt.value = inputIds),
    retryCamera: (inputId: string) => cameras.retry(inputId),
    ...screenFigures,
    ...clipFigures,
    restart,
    startFeed,
    feedTrack: () => engine.trackOf(WEBCAM.id),
    stopFeed,
    takeOver,
  }
})
