// The live inputs of the open show and of the one on air: cameras, screens and clips. One table says what each is doing.
import { defineStore } from 'pinia'
import { shallowRef, watch } from 'vue'
import { visibleInputs } from '../../core/show/edits.ts'
import { withHeld } from '../../core/show/with-held-show.ts'
import { statusOf, type LiveState, type LiveStatus } from '../../engine/live/live-state.ts'
import { useAirStore } from '../air/air.store.ts'
import { useEngineStore } from '../engine/engine.store.ts'
import { useShowStore } from '../show/show.store.ts'
import { inputsSeenIn } from './inputs-seen-in.ts'
import type { LiveSink } from './live-sink.ts'
import { useCameras } from './use-cameras.ts'
import { useClips } from './use-clips.ts'
import { useScreens } from './use-screens.ts'

export const useInputsStore = defineStore('inputs', () => {
  const showStore = useShowStore()
  const engine = useEngineStore()
  const air = useAirStore()
  const states = shallowRef<Readonly<Record<string, LiveState>>>({})
  /** Inputs that a view shows by themselves, whether a layer uses them or not. */
  const lookedAt = shallowRef<readonly string[]>([])

  const sink: LiveSink = {
    supply: (inputId, supply, setsBeat) => engine.calls().inputs.supply(inputId, supply, setsBeat),
    drop: (inputId) => engine.calls().inputs.drop(inputId),
    tell: (inputId, state) => (states.value = { ...states.value, [inputId]: state }),
  }
  const { manager: cameras, ...cameraFigures } = useCameras(sink)
  const { manager: screens, ...screenFigures } = useScreens(sink, states, (inputId) => engine.calls().pictures.grab(inputId, null, null))
  const { manager: clips, reports: clipReports } = useClips(sink)

  /** Opens what is open or on air, and closes the rest. */
  function follow(): void {
    const show = air.pictured
    if (show === null) return
    const both = withHeld(show, air.held)
    cameras.follow(both, new Set([...visibleInputs(both), ...lookedAt.value]))
    screens.follow(both)
    clips.follow(both, new Set([...inputsSeenIn(both, [showStore.sceneId, air.onAirSceneId]), ...lookedAt.value]))
  }

  watch([() => air.pictured, () => air.held, () => air.onAirSceneId, () => showStore.sceneId, lookedAt], follow, { immediate: true })

  engine.listen({
    onStarted: () => {
      follow()
      cameras.restart()
      screens.restart()
      clips.restart()
    },
    onSupplyEnded: (inputId, fault) => {
      cameras.ended(inputId, fault)
      screens.ended(inputId, fault)
    },
  })

  return {
    ...cameraFigures,
    ...screenFigures,
    /** Where each clip is. */
    clipReports,
    states,
    /** What a live input is doing; 'off' before anything is known of it. */
    statusOf: (inputId: string): LiveStatus => statusOf(states.value[inputId] ?? { phase: 'off' }),
    /** Why a live input failed, for people who look into it; empty where nothing is known. */
    detailOf: (inputId: string): string => {
      const state = states.value[inputId]
      return state?.phase === 'failed' ? (state.detail ?? '') : ''
    },
    /** Tells which inputs a view shows by themselves. */
    lookAt: (inputIds: readonly string[]) => (lookedAt.value = inputIds),
    /** Holds an input's picture still while true. */
    freeze: (inputId: string, isFrozen: boolean) => engine.calls().inputs.freeze(inputId, isFrozen),
    retryCamera: (inputId: string) => cameras.retry(inputId),
    /** Lets the presenter choose what a screen shows; from a press. */
    shareScreen: (inputId: string) => screens.share(inputId),
    stopScreen: (inputId: string) => screens.stop(inputId),
    playClip: (inputId: string) => clips.play(inputId),
    pauseClip: (inputId: string) => clips.pause(inputId),
    restartClip: (inputId: string) => clips.playFromStart(inputId),
  }
})
