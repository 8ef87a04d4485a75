// What "Add" offers, and how each thing lands in the scene: fitted, in front, selected.
import { Camera, Image, Palette, Type } from 'lucide-vue-next'
import { computed, useTemplateRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { addInput, addLayer, countOfKind } from '../../core/show/edits.ts'
import { newCamera, newInputLayer, newTextLayer } from '../../core/show/create.ts'
import type { Input, Layer } from '../../core/show/show.ts'
import type { MenuAction } from '../base/ActionMenu.vue'
import { api } from '../show/api.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'

const NEW_COLOUR = '#8fa396'

export function useAddLayer() {
  const { t } = useI18n()
  const showStore = useShowStore()
  const fileInput = useTemplateRef<HTMLInputElement>('fileInput')

  function place(layer: Layer, input: Input | null): void {
    const { sceneId } = showStore
    if (sceneId === null) return
    showStore.edit(t('edits.addLayer'), (show) => addLayer(input === null ? show : addInput(show, input), sceneId, layer))
    showStore.selectLayer(layer.id)
  }

  function addText(): void {
    place(newTextLayer(t('build.textName'), t('build.textDefault'), showStore.show!.canvas, makeId), null)
  }

  function addColour(): void {
    const input: Input = { id: makeId(), kind: 'colour', name: numbered('colour', t('build.colourName')), colour: NEW_COLOUR, treatment: [] }
    place(newInputLayer(input, showStore.show!.canvas, makeId), input)
  }

  function addCamera(): void {
    const { canvas } = showStore.show!
    const input = newCamera(numbered('camera', t('build.newCameraName')), { type: 'standin', standin: 'cloth' }, canvas, makeId)
    place(newInputLayer(input, canvas, makeId), input)
  }

  function addAgain(input: Input): void {
    place(newInputLayer(input, showStore.show!.canvas, makeId), null)
  }

  function numbered(kind: Input['kind'], name: string): string {
    const count = countOfKind(showStore.show!.inputs, kind)
    return count === 0 ? name : `${name} ${count + 1}`
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

  const actions = computed<MenuAction[]>(() => [
    { label: t('build.addText'), icon: Type, group: t('build.newInput'), run: addText },
    { label: t('build.addPicture'), icon: Image, run: () => fileInput.value?.click() },
    { label: t('build.addColour'), icon: Palette, run: addColour },
    { label: t('build.addCamera'), icon: Camera, run: addCamera },
    ...(showStore.show?.inputs ?? []).map((input, index) => ({
      label: input.name,
      icon: input.kind === 'camera' ? Camera : input.kind === 'picture' ? Image : Palette,
      ...(index === 0 ? { group: t('build.inputsInShow') } : {}),
      run: () => addAgain(input),
    })),
  ])

  return { actions, addFiles, onFilesChosen }
}
