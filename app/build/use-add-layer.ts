// What "Add" offers.
import { inputFaceOf } from '../kinds/inputs/index.ts'
import { inputIdOf } from '../../core/layers/index.ts'
import { newTextLayer } from '../../core/layers/text.ts'
import { newSceneLayer } from '../../core/layers/scene.ts'
import { newLineLayer, newOutlineLayer, newShapeLayer } from '../../core/layers/shape.ts'
import { Camera, Circle, Image, Layers, MessageSquare, Minus, MonitorUp, MoveRight, Palette, Square, Star, Type, Video } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { layersOf, sceneCircle } from '../../core/layers/tree.ts'
import { addLayer } from '../../core/show/edits.ts'
import type { OutlineName } from '../../core/outline/usual-outlines.ts'
import type { FrameForm, Input, Scene } from '../../core/show/show.ts'
import type { MenuAction } from '../base/ActionMenu.vue'
import { useDevices } from '../devices/use-devices.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import { useAddFiles } from './use-add-files.ts'
import { usePlacing } from './use-placing.ts'
import { useFocusInspector } from './use-focus-inspector.ts'

const NEW_COLOUR = '#8fa396'

export function useAddLayer() {
  const { t } = useI18n()
  const showStore = useShowStore()
  const { cameras } = useDevices()
  const { place, placeInput, placeCamera, placeScreen, numbered } = usePlacing()
  const { focusText } = useFocusInspector()
  const { addFiles, chooseFiles } = useAddFiles()

  /** A text, ready to be typed over. */
  function addText(): void {
    const { layer, contents } = newTextLayer(t('build.textName'), t('build.textDefault'), showStore.show!.canvas, makeId)
    place(layer, null, contents)
    focusText()
  }

  function addColour(): void {
    const input: Input = { id: makeId(), kind: 'colour', name: numbered('colour', t('build.colourName')), colour: NEW_COLOUR, treatment: [] }
    placeInput(input, true)
  }

  function addShape(name: string, form: FrameForm): void {
    const { layer, contents } = newShapeLayer(name, form, showStore.show!.canvas, makeId)
    place(layer, null, contents)
  }

  function addOutline(name: string, form: OutlineName): void {
    const { layer, contents } = newOutlineLayer(name, form, showStore.show!.canvas, makeId)
    place(layer, null, contents)
  }

  function addLine(): void {
    const { layer, contents } = newLineLayer(t('build.addLine'), showStore.show!.canvas, makeId)
    place(layer, null, contents)
  }

  /** Scenes that can be shown in this one: not itself, and none that shows it. */
  const otherScenes = computed(() => {
    const { show, scene } = showStore
    if (show === null || scene === null) return []
    const makesCircle = (other: Scene) => {
      const layer = newSceneLayer(other, show.canvas, () => 'try')
      return sceneCircle(addLayer(show, scene.id, layer).scenes, scene.id) !== null
    }
    return show.scenes.filter((other) => !makesCircle(other))
  })

  /** The first real camera that is known, or the stand-in. */
  function addCamera(): void {
    const camera = cameras.value[0]
    placeCamera(camera === undefined ? { type: 'standin', standin: 'cloth' } : { type: 'device', deviceId: camera.deviceId, label: camera.label.slice(0, 200) })
  }

  function onFilesChosen(event: Event): void {
    const field = event.target as HTMLInputElement
    const files = [...(field.files ?? [])]
    field.value = ''
    void addFiles(files)
  }

  /** In how many scenes each input is used already. */
  const uses = computed(() => {
    const counts = new Map<string, number>()
    for (const scene of showStore.show?.scenes ?? []) {
      for (const id of new Set(layersOf(scene).map(inputIdOf))) if (id !== null) counts.set(id, (counts.get(id) ?? 0) + 1)
    }
    return counts
  })
  const actions = computed<MenuAction[]>(() => [
    { label: t('build.addText'), icon: Type, group: t('build.newInput'), run: addText },
    { label: t('build.addPicture'), icon: Image, run: () => chooseFiles() },
    { label: t('build.addColour'), icon: Palette, run: addColour },
    { label: t('build.addBox'), icon: Square, run: () => addShape(t('build.addBox'), 'box') },
    { label: t('build.addLine'), icon: Minus, run: addLine },
    { label: t('build.addEllipse'), icon: Circle, run: () => addShape(t('build.addEllipse'), 'ellipse') },
    { label: t('build.addArrow'), icon: MoveRight, run: () => addOutline(t('build.addArrow'), 'arrow') },
    { label: t('build.addStar'), icon: Star, run: () => addOutline(t('build.addStar'), 'star') },
    { label: t('build.addBubble'), icon: MessageSquare, run: () => addOutline(t('build.addBubble'), 'bubble') },
    ...cameras.value.map((camera) => ({
      label: t('build.cameraOf', { label: camera.label || t('build.addCamera') }),
      icon: Camera,
      run: () => placeCamera({ type: 'device', deviceId: camera.deviceId, label: camera.label.slice(0, 200) }),
    })),
    { label: t('screens.share'), icon: MonitorUp, detail: t('screens.shareHint'), run: () => placeScreen('shared') },
    { label: t('screens.standin'), icon: MonitorUp, run: () => placeScreen('standin') },
    { label: t('build.standinCamera'), icon: Video, run: () => placeCamera({ type: 'standin', standin: 'cloth' }) },
    ...(showStore.show?.inputs ?? []).map((input, index) => ({
      label: input.name,
      icon: inputFaceOf(input).icon,
      detail: t('build.again', { kind: t(`layer.kinds.${input.kind}`), uses: t('layer.usedIn', uses.value.get(input.id) ?? 0) }),
      ...(index === 0 ? { group: t('build.inputsInShow') } : {}),
      run: () => placeInput(input, false),
    })),
    ...otherScenes.value.map((scene, index) => ({
      label: scene.name,
      icon: Layers,
      ...(index === 0 ? { group: t('build.scenesInShow') } : {}),
      run: () => place(newSceneLayer(scene, showStore.show!.canvas, makeId), null),
    })),
  ])

  return { actions, addText, addCamera, chooseFiles, addFiles, onFilesChosen, placeScreen }
}
