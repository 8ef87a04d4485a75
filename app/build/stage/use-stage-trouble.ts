// What keeps the scene on the stage from being whole, and what the audience gets meanwhile.
import { isFailure } from '../../../engine/live/live-state.ts'
import { isClip } from '../../../core/inputs/clip.ts'
import { isScreen } from '../../../core/inputs/screen.ts'
import { isCamera } from '../../../core/inputs/camera.ts'
import { inputIdOf } from '../../../core/layers/index.ts'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { layersShownBy } from '../../../core/layers/tree.ts'
import type { CameraInput, Input, ScreenInput } from '../../../core/show/show.ts'
import { useEngineStore } from '../../engine/engine.store.ts'
import { useAirStore } from '../../air/air.store.ts'
import { useInputsStore } from '../../inputs/inputs.store.ts'
import { useShowStore } from '../../show/show.store.ts'

export function useStageTrouble() {
  const { t } = useI18n()
  const showStore = useShowStore()
  const engine = useEngineStore()
  const air = useAirStore()
  const inputs = useInputsStore()

  const shownInputs = computed<readonly Input[]>(() => {
    const layers = (showStore.scene?.layers ?? []).flatMap((layer) => (layer.visible ? [layer, ...layersShownBy(showStore.show!, layer)] : []))
    const shown = new Set(layers.filter((layer) => layer.visible).map(inputIdOf))
    return (showStore.show?.inputs ?? []).filter((input) => shown.has(input.id))
  })
  const cameras = computed(() => shownInputs.value.filter(isCamera))
  /** The first screen of the scene that nothing is shared for. */
  const screen = computed<ScreenInput | null>(() => {
    const screens = shownInputs.value.filter(isScreen).filter(({ source }) => source.type === 'shared')
    return screens.find(({ id }) => !['live', 'asked'].includes(inputs.statusOf(id))) ?? null
  })
  const stateOf = (camera: CameraInput) => inputs.statusOf(camera.id)
  /** The first camera of the scene that cannot be had. */
  const camera = computed(() => cameras.value.find((one) => isFailure(stateOf(one))) ?? null)
  /** The first clip of the scene that cannot be played. */
  const clip = computed(() => shownInputs.value.filter(isClip).find(({ id }) => isFailure(inputs.statusOf(id))) ?? null)
  const isOnAir = computed(() => air.onAirId !== null && air.onAirId === showStore.sceneId)
  const showsCard = computed(() => isOnAir.value && engine.stats?.feed.showsCard === true)

  const words = computed(() => {
    if (showsCard.value && air.isCardWanted) return { title: t('build.cardWanted', { scene: showStore.scene?.name ?? '' }), help: null }
    const state = camera.value === null ? null : stateOf(camera.value)
    const ofCamera = state === null ? null : t('build.cameraReason', { name: camera.value!.name, state: `camera.states.${state}` })
    const ofClip = clip.value === null ? null : t('build.clipReason', { name: clip.value.name, reason: inputs.detailOf(clip.value.id) })
    const reason = ofCamera ?? ofClip
    if (showsCard.value) return { title: t('build.theySeeCard', { reason: reason ?? t('build.noPictureYet') }), help: helpOf(state) }
    if (reason === null && screen.value !== null) {
      const shared = inputs.statusOf(screen.value.id)
      return {
        title: t('build.cameraReason', { name: screen.value.name, state: `screens.states.${shared}` }),
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
