// What "Add" offers, and how each thing lands in the scene: fitted, in front, selected.
import { Camera, Circle, Film, Image, Layers, MessageSquare, Minus, MonitorUp, MoveRight, Palette, Square, Star, Type, Video } from 'lucide-vue-next'
import { computed, useTemplateRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { layersOf, sceneCircle } from '../../core/show/layer-tree.ts'
import { addContents } from '../../core/show/contents.ts'
import { addInput, addLayer, countOfKind } from '../../core/show/edits.ts'
import { newCamera, newInputLayer, newLineLayer, newOutlineLayer, newSceneLayer, newShapeLayer, newTextLayer } from '../../core/show/create.ts'
import type { OutlineName } from '../../core/outline/usual-outlines.ts'
import type { CameraInput, Content, FrameForm, Input, Layer, Scene } from '../../core/show/show.ts'
import type { MenuAction } from '../base/ActionMenu.vue'
import { useDevices } from '../devices/use-devices.ts'
import { api } from '../show/api.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import { useFocusInspector } from './use-focus-inspector.ts'

const NEW_COLOUR = '#8fa396'

export function useAddLayer() {
  const { t } = useI18n()
  const showStore = useShowStore()
  const { cameras } = useDevices()
  const { focusText } = useFocusInspector()
  const fileInput = useTemplateRef<HTMLInputElement>('fileInput')

  function place(layer: Layer, input: Input | null, contents: readonly Content[] = []): void {
    const { sceneId } = showStore
    if (sceneId === null) return
    showStore.edit(t('edits.addLayer', { name: layer.name }), (show) =>
      addLayer(addContents(input === null ? show : addInput(show, input), contents), sceneId, layer),
    )
    showStore.selectLayer(layer.id)
  }

  /** A text, ready to be typed over. */
  function addText(): void {
    const { layer, contents } = newTextLayer(t('build.textName'), t('build.textDefault'), showStore.show!.canvas, makeId)
    place(layer, null, contents)
    focusText()
  }

  function addColour(): void {
    const input: Input = { id: makeId(), kind: 'colour', name: numbered('colour', t('build.colourName')), colour: NEW_COLOUR, treatment: [] }
    place(newInputLayer(input, showStore.show!.canvas, makeId), input)
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

  function addCameraOf(device: CameraInput['device']): void {
    const { canvas } = showStore.show!
    const input = newCamera(numbered('camera', t('build.newCameraName')), device, canvas, makeId)
    place(newInputLayer(input, canvas, makeId), input)
  }

  /** The first real camera that is known, or the stand-in. */
  function addCamera(): void {
    const camera = cameras.value[0]
    addCameraOf(camera === undefined ? { type: 'standin', standin: 'cloth' } : { type: 'device', deviceId: camera.deviceId, label: camera.label.slice(0, 200) })
  }

  function addAgain(input: Input): void {
    place(newInputLayer(input, showStore.show!.canvas, makeId), null)
  }

  function numbered(kind: Input['kind'], name: string): string {
    const count = countOfKind(showStore.show!.inputs, kind)
    return count === 0 ? name : `${name} ${count + 1}`
  }

  function choosePictures(): void {
    fileInput.value?.click()
  }

  /** Uploads pictures one after the other; a refused one says why and the rest go on. */
  async function addFiles(files: readonly File[]): Promise<void> {
    for (const file of files) {
      const progress = toast.loading(t('build.uploading', { name: file.name }))
      try {
        const asset = await api.addAsset(file)
        const name = file.name.replace(/\.\w+$/, '').slice(0, 80) || file.name.slice(0, 80)
        const input: Input = { id: makeId(), kind: 'picture', name, asset: asset.hash, treatment: [] }
        place(newInputLayer(input, showStore.show!.canvas, makeId), input)
        toast.dismiss(progress)
      } catch (error) {
        toast.dismiss(progress)
        toast.error(error instanceof TypeError ? t('errors.network') : error instanceof Error ? error.message : String(error), { duration: 10_000 })
      }
    }
  }

  function onFilesChosen(event: Event): void {
    const field = event.target as HTMLInputElement
    const files = [...(field.files ?? [])]
    field.value = ''
    void addFiles(files)
  }

  const icons = { camera: Camera, screen: MonitorUp, picture: Image, clip: Film, colour: Palette } as const
  /** In how many scenes an input is used already. */
  const usesOf = (input: Input) =>
    (showStore.show?.scenes ?? []).filter((scene) => layersOf(scene).some((layer) => layer.kind === 'input' && layer.inputId === input.id)).length
  const actions = computed<MenuAction[]>(() => [
    { label: t('build.addText'), icon: Type, group: t('build.newInput'), run: addText },
    { label: t('build.addPicture'), icon: Image, run: choosePictures },
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
      run: () => addCameraOf({ type: 'device', deviceId: camera.deviceId, label: camera.label.slice(0, 200) }),
    })),
    { label: t('build.standinCamera'), icon: Video, run: () => addCameraOf({ type: 'standin', standin: 'cloth' }) },
    ...(showStore.show?.inputs ?? []).map((input, index) => ({
      label: input.name,
      icon: icons[input.kind],
      detail: t('build.again', { kind: t(`layer.kinds.${input.kind}`), uses: t('layer.usedIn', usesOf(input)) }),
      ...(index === 0 ? { group: t('build.inputsInShow') } : {}),
      run: () => addAgain(input),
    })),
    ...otherScenes.value.map((scene, index) => ({
      label: scene.name,
      icon: Layers,
      ...(index === 0 ? { group: t('build.scenesInShow') } : {}),
      run: () => place(newSceneLayer(scene, showStore.show!.canvas, makeId), null),
    })),
  ])

  return { actions, addText, addCamera, choosePictures, addFiles, onFilesChosen }
}
