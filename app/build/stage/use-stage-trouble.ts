// What keeps the scene on the stage from being whole, and what the audience gets meanwhile.
import { isClip } from '../../../core/inputs/clip.ts'
import { isScreen } from '../../../core/inputs/screen.ts'
import { isCamera } from '../../../core/inputs/camera.ts'
import { inputIdOf } from '../../../core/layers/index.ts'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { layersShownBy } from '../../../core/layers/tree.ts'
import type { CameraInput, Input, ScreenInput } from '../../../core/show/show.ts'
import { useEngineStore } from '../../engine/engine.store.ts'
import { useShowStore } from '../../show/show.store.ts'

export function useStageTrouble() {
  const { t } = useI18n()
  const showStore = useShowStore()
  const engine = useEngineStore()

  const inputs = computed<readonly Input[]>(() => {
    const layers = (showStore.scene?.layers ?? []).flatMap((layer) => (layer.visible ? [layer, ...layersShownBy(showStore.show!, layer)] : []))
    const shown = new Set(layers.filter((layer) => layer.visible).map(inputIdOf))
    return (showStore.show?.inputs ?? []).filter((input) => shown.has(input.id))
  })
  const cameras = computed(() => inputs.value.filter(isCamera))
  /** The first screen of the scene that nothing is shared for. */
  const screen = computed<ScreenInput | null>(() => {
    const screens = inputs.value.filter(isScreen).filter(({ source }) => source.type === 'shared')
    return screens.find(({ id }) => !['live', 'choosing'].includes(engine.screenStates[id] ?? 'unshared')) ?? null
  })
  const stateOf = (camera: CameraInput) => engine.cameraStates[camera.id] ?? 'starting'
  /** The first camera of the scene that cannot be had. */
  const camera = computed(() => cameras.value.find((one) => !['live', 'starting', 'resting'].includes(stateOf(one))) ?? null)
  /** The first clip of the scene that cannot be played. */
  const clip = computed(() => inputs.value.filter(isClip).find(({ id }) => (engine.clipStates[id]?.failure ?? null) !== null) ?? null)
  const isOnAir = computed(() => engine.onAirId !== null && engine.onAirId === showStore.sceneId)
  const showsCard = computed(() => isOnAir.value && engine.stats?.feed.showsCard === true)

  const words = computed(() => {
    if (showsCard.value && engine.isCardWanted) return { title: t('build.cardWanted'), help: null }
    const state = camera.value === null ? null : stateOf(camera.value)
    const ofCamera = state === null ? null : t('build.cameraReason', { name: camera.value!.name, state: t(`camera.${state}`).toLowerCase() })
    const ofClip = clip.value === null ? null : t('build.clipReason', { name: clip.value.name, reason: engine.clipStates[clip.value.id]!.failure })
    const reason = ofCamera ?? ofClip
    if (showsCard.value) return { title: t('build.theySeeCard', { reason: reason ?? t('build.noPictureYet') }), help: helpOf(state) }
    if (reason === null && screen.value !== null) {
      const shared = engine.screenStates[screen.value.id] ?? 'unshared'
      return {
        title: t('build.cameraReason', { name: screen.value.name, state: t(`screens.states.${shared}`).toLowerCase() }),
        help: t(`screens.help.${shared}`),
      }
    }
    return reason === null ? null : { title: reason, help: helpOf(state) }
  })

  function helpOf(state: ReturnType<typeof stateOf> | null): string | null {
    if (state !== null) return t(`camera.help.${state}`)
    return clip.value === null ? null : t('build.clipHelp')
  }

  return { camera, screen, words }
}
