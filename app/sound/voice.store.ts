// The presenter's voice: the microphone of the show on air, or of the open one, how loud it is, and whether it is muted.
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import type { Show } from '../../core/show/show.ts'
import { statusOf, type LiveStatus } from '../../engine/live/live-state.ts'
import { MicrophoneManager } from '../../engine/live/microphone-manager.ts'
import type { FromVoice, ToVoice, VoiceLevel } from '../../engine/sound/voice-protocol.ts'
import { useShowStore } from '../show/show.store.ts'
import { openMicrophone, openStandinMicrophone } from './open-microphone.ts'

/** A muted presenter stays muted when the page is loaded anew. */
const MUTED_KEY = 'green-room:muted'

export const useVoiceStore = defineStore('voice', () => {
  const showStore = useShowStore()
  const state = ref<LiveStatus>('off')
  const level = shallowRef<VoiceLevel | null>(null)
  const isMuted = ref(sessionStorage.getItem(MUTED_KEY) !== null)
  /** A microphone that was plugged in beside the one in use. */
  const otherLabel = ref<string | null>(null)
  /** The show whose voice the audience hears while it is not the open one. */
  const onAirShow = shallowRef<Show | null>(null)
  const microphone = computed(() => (onAirShow.value ?? showStore.show)?.microphone ?? null)

  const worker = new Worker(new URL('../../engine/sound/voice.worker.ts', import.meta.url), { type: 'module', name: 'voice' })
  const post = (message: ToVoice, transfer: Transferable[] = []) => worker.postMessage(message, transfer)
  let onHeard: ((atMs: number, samples: Float32Array) => void) | null = null
  worker.onmessage = ({ data }: MessageEvent<FromVoice>) => {
    // Nobody sees the meter of a hidden page.
    if (data.type === 'level') level.value = document.hidden ? level.value : data.level
    else onHeard?.(data.atMs, data.samples)
  }

  /** Hands on what is heard until told otherwise; null: no longer. */
  function listen(hear: ((atMs: number, samples: Float32Array) => void) | null): void {
    onHeard = hear
    post({ type: 'listen', isOn: hear !== null })
  }

  const manager = new MicrophoneManager(
    {
      mediaDevices: navigator.mediaDevices,
      openStandin: openStandinMicrophone,
      openStream: openMicrophone,
      setTimer: (run, delayMs) => window.setTimeout(run, delayMs),
      clearTimer: (timer) => window.clearTimeout(timer),
    },
    {
      onSource: (port) => {
        level.value = null
        post({ type: 'source', port }, port === null ? [] : [port])
      },
      onState: (next) => {
        state.value = statusOf(next)
        if (next.phase !== 'live') level.value = null
      },
      onOther: (label) => (otherLabel.value = label),
    },
  )

  watch(microphone, (next) => manager.follow(next), { immediate: true })
  watch(
    [microphone, isMuted],
    () => {
      if (microphone.value === null) return
      const { gainDb, sides, delayMs } = microphone.value
      post({ type: 'settings', settings: { gainDb, sides, delayMs, isMuted: isMuted.value } })
    },
    { immediate: true },
  )
  watch(isMuted, (muted) => {
    if (muted) sessionStorage.setItem(MUTED_KEY, 'yes')
    else sessionStorage.removeItem(MUTED_KEY)
  })

  return {
    state,
    level,
    isMuted,
    otherLabel,
    microphone,
    /** Tells which show is on air; null when that is the open one, or none. */
    setOnAirShow: (show: Show | null) => (onAirShow.value = show),
    toggleMute: () => (isMuted.value = !isMuted.value),
    listen,
    retry: () => manager.retry(),
    clearClipping: () => post({ type: 'clearClipping' }),
    /** Fills a meeting's sound channel. */
    add: (channel: RTCDataChannel) => post({ type: 'channel', channel }, [channel as unknown as Transferable]),
  }
})
