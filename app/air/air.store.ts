// What the audience gets: the scene on air or the holding card, told to the engine, and the feed that carries it to meetings.
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { WEBCAM } from '../../engine/output-order.ts'
import { useEngineStore } from '../engine/engine.store.ts'
import { useLinkStore } from '../link/link.store.ts'
import { useShowStore } from '../show/show.store.ts'
import { useSitesStore } from '../sites/sites.store.ts'
import { useVoiceStore } from '../sound/voice.store.ts'
import { useFeedHosts } from './use-feed-hosts.ts'
import { useFocus } from './use-focus.ts'
import { useGraphicsOnAir } from './use-graphics-on-air.ts'
import { useProgramme } from './use-programme.ts'

export const useAirStore = defineStore('air', () => {
  const showStore = useShowStore()
  const engine = useEngineStore()
  const link = useLinkStore()
  const voice = useVoiceStore()
  const programme = useProgramme()
  const { air, isCardWanted, held, pictured } = programme
  const isFeedOn = computed(() => air.value !== null)
  /** Whether another tab took the feed over. */
  const isFeedTaken = ref(false)
  /** Whether the feed was just started and the hint about joining a meeting is still to be shown. */
  const isFeedNew = ref(false)
  const canFeed = 'MediaStreamTrackGenerator' in window && 'MediaStreamTrackProcessor' in window
  const hosts = useFeedHosts([link.signalling, useSitesStore().transport], voice, () => air.value?.show.canvas, feedTaken)
  link.onReached(hosts.announce)

  /** Tells the engine what is open and what is on air. */
  function follow(): void {
    const show = pictured.value
    if (show === null) return
    const calls = engine.calls().programme
    // A show may be on air while none is open.
    const heldShow = showStore.show === null ? null : held.value
    const now = air.value
    const showId = showStore.show === null ? (now?.showId ?? '') : (showStore.showId ?? '')
    const firstId = showStore.onAirId
    const near = programme.focus.value
    calls.follow({
      open: { showId, show },
      held: heldShow === null || now === null ? null : { showId: now.showId, show: heldShow },
      onAir:
        now !== null
          ? { showId: now.showId, sceneId: now.sceneId, ...(near === null ? {} : { focus: near }) }
          : firstId === null
            ? null
            : { showId, sceneId: firstId },
      isSent: now !== null,
    })
    calls.setCard(isCardWanted.value)
    engine.expectReports()
  }

  const graphics = useGraphicsOnAir()
  const focus = useFocus(programme)
  /** The engine is told of graphics once it has their show. */
  function tellGraphics(): void {
    const known = new Set([showStore.show === null ? null : showStore.showId, air.value?.showId ?? null])
    engine.calls().programme.setGraphics(new Map([...graphics.refs.value].filter(([, { showId }]) => known.has(showId))))
  }
  watch([graphics.refs, pictured, held, air], tellGraphics)

  watch(isCardWanted, (isWanted) => engine.calls().programme.setCard(isWanted))
  watch([pictured, held, programme.onAirId, programme.focus, () => showStore.onAirId], follow, { immediate: true })
  // The voice stays with what is on air, as the picture does.
  watch(air, (now) => voice.setOnAirShow(now?.show ?? null), { immediate: true, flush: 'sync' })

  engine.listen({
    onStarted: () => {
      follow()
      tellGraphics()
      if (isFeedOn.value && pictured.value !== null) sendFeed()
    },
  })

  function sendFeed(isAgain = false): void {
    hosts.setFeed(engine.calls().outputs.open(WEBCAM), isAgain)
  }

  /** Sends the scene that is first on air, or `sceneId`. Only the tab that edits the show may. */
  function startFeed(sceneId = showStore.onAirId): void {
    if (!canFeed || isFeedOn.value || !showStore.isEditor || sceneId === null) return
    programme.take(sceneId)
    isFeedTaken.value = false
    isFeedNew.value = true
    sendFeed()
  }

  /** Puts a scene of the open show on air. */
  function takeOnAir(sceneId: string): void {
    if (isFeedOn.value) programme.take(sceneId)
    else showStore.setOnAir(sceneId)
  }

  /** Switches the holding card on or off. */
  function toggleCard(): void {
    if (isFeedOn.value) isCardWanted.value = !isCardWanted.value
  }

  function stopFeed(): void {
    programme.clear()
    isFeedNew.value = false
    hosts.setFeed(null)
    engine.calls().outputs.close(WEBCAM.id)
  }

  /** Another tab took the feed over: stops this tab's, and remembers why. */
  function feedTaken(): void {
    stopFeed()
    isFeedTaken.value = true
  }

  // After a reload the page resumes what it had on air.
  void programme.resume().then((isBack) => {
    if (isBack && canFeed) sendFeed(true)
  })

  return {
    canFeed,
    isFeedOn,
    isFeedNew,
    isFeedTaken,
    /** The open show, or what is on air when none is open. */
    pictured,
    /** The show that is on air instead of the open one. */
    held,
    /** The scene of the open show that is on air, and the name of the one that is, wherever it is. */
    onAirId: programme.onAirId,
    onAirName: programme.sceneName,
    onAirShow: computed(() => air.value?.show ?? null),
    /** When the feed was started, by the clock of the day, in ms; null while it is off. */
    sinceMs: computed(() => air.value?.sinceMs ?? null),
    onAirSceneId: computed(() => air.value?.sceneId ?? null),
    isOnAirHere: programme.isHere,
    isOnAirShowOpen: computed(() => air.value !== null && air.value.showId === showStore.showId),
    isCardWanted,
    /** Whether the audience sees the holding card in place of the scene: because the presenter wants it, or because there is no picture. */
    showsCard: computed(() => isFeedOn.value && (isCardWanted.value || engine.stats?.feed.showsCard === true)),
    meetingCount: hosts.meetingCount,
    takeOnAir,
    graphics,
    focus,
    toggleCard,
    startFeed,
    stopFeed,
    feedTrack: () => engine.calls().outputs.trackOf(WEBCAM.id),
  }
})
