// What "Add" offers.
import { inputFaceOf } from '../kinds/inputs/index.ts'
import { inputKindOf } from '../../core/inputs/index.ts'
import { inputIdOf } from '../../core/layers/index.ts'
import { newTextLayer } from '../../core/layers/text.ts'
import { newSceneLayer } from '../../core/layers/scene.ts'
import { newLineLayer, newOutlineLayer, newShapeLayer } from '../../core/layers/shape.ts'
import {
  Camera,
  Circle,
  Image,
  Layers,
  MessageSquare,
  Minus,
  MonitorUp,
  MoveRight,
  Palette,
  PencilLine,
  Presentation,
  Square,
  Star,
  Type,
  Video,
} from 'lucide-vue-next'
import { computed, type Component } from 'vue'
import { useI18n } from 'vue-i18n'
import { layersOf, sceneCircle } from '../../core/layers/tree.ts'
import { addLayer } from '../../core/show/edits.ts'
import type { OutlineName } from '../../core/outline/usual-outlines.ts'
import type { FrameForm, Input, Scene } from '../../core/show/show.ts'
import type { ViewRequest } from '../../engine/protocol.ts'
import type { MenuAction } from '../base/ActionMenu.vue'
import { useAddBoard } from '../decks/use-add-board.ts'
import { useChooseDeck } from '../decks/use-choose-deck.ts'
import { useDevices } from '../devices/use-devices.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import { useAddFiles } from './use-add-files.ts'
import { usePlacing } from './use-placing.ts'
import { useFocusInspector } from './use-focus-inspector.ts'

const NEW_COLOUR = '#8fa396'

/** Where in the menu an action stands. */
export type AddPart = 'source' | 'words' | 'shape' | 'input' | 'scene'

export interface AddAction extends MenuAction {
  readonly part: AddPart
  readonly icon: Component
  /** What is shown of it, where it has a picture already. */
  readonly request?: ViewRequest
}

function action(part: AddPart, label: string, icon: Component, run: () => void): AddAction {
  return { part, label, icon, run }
}

export function useAddLayer() {
  const { t } = useI18n()
  const showStore = useShowStore()
  const { cameras } = useDevices()
  const { place, placeInput, placeCamera, placeScreen, numbered } = usePlacing()
  const { focusText } = useFocusInspector()
  const { addFiles, chooseFiles } = useAddFiles()
  const { addBoard } = useAddBoard()
  const { chooseDeck } = useChooseDeck()

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
  const sources = computed<AddAction[]>(() => [
    ...cameras.value.map((camera) =>
      action('source', t('build.cameraOf', { label: camera.label || t('build.addCamera') }), Camera, () =>
        placeCamera({ type: 'device', deviceId: camera.deviceId, label: camera.label.slice(0, 200) }),
      ),
    ),
    action('source', t('build.standinCamera'), Video, () => placeCamera({ type: 'standin', standin: 'cloth' })),
    { ...action('source', t('screens.share'), MonitorUp, () => placeScreen('shared')), detail: t('screens.shareHint') },
    action('source', t('screens.standin'), MonitorUp, () => placeScreen('standin')),
    { ...action('source', t('decks.addSlides'), Presentation, () => chooseDeck()), detail: t('decks.addHint') },
    { ...action('source', t('decks.addBoard'), PencilLine, () => void addBoard()), detail: t('decks.addBoardHint') },
    action('source', t('build.addPicture'), Image, () => chooseFiles()),
  ])
  const words = computed<AddAction[]>(() => [action('words', t('build.addText'), Type, addText), action('words', t('build.addColour'), Palette, addColour)])
  const shapes = computed<AddAction[]>(() => [
    action('shape', t('build.addBox'), Square, () => addShape(t('build.addBox'), 'box')),
    action('shape', t('build.addEllipse'), Circle, () => addShape(t('build.addEllipse'), 'ellipse')),
    action('shape', t('build.addLine'), Minus, addLine),
    action('shape', t('build.addArrow'), MoveRight, () => addOutline(t('build.addArrow'), 'arrow')),
    action('shape', t('build.addStar'), Star, () => addOutline(t('build.addStar'), 'star')),
    action('shape', t('build.addBubble'), MessageSquare, () => addOutline(t('build.addBubble'), 'bubble')),
  ])
  const inShow = computed<AddAction[]>(() => [
    ...(showStore.show?.inputs ?? []).map((input) => ({
      ...action('input', input.name, inputFaceOf(input).icon, () => placeInput(input, false)),
      detail: t('build.again', { kind: t(`layer.kinds.${input.kind}`), uses: t('layer.usedIn', uses.value.get(input.id) ?? 0) }),
      ...(inputKindOf(input).hasPicture ? { request: { kind: 'input' as const, inputId: input.id, stage: 'after' as const, isSmall: true } } : {}),
    })),
    ...otherScenes.value.map((scene) => ({
      ...action('scene', scene.name, Layers, () => place(newSceneLayer(scene, showStore.show!.canvas, makeId), null)),
      detail: t('layer.kinds.scene'),
      request: { kind: 'scene' as const, sceneId: scene.id, isSmall: true },
    })),
  ])
  const actions = computed<AddAction[]>(() => [...sources.value, ...words.value, ...shapes.value, ...inShow.value])

  return { actions, addText, addCamera, chooseFiles, addFiles, onFilesChosen, placeScreen }
}
