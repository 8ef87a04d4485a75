// How a new layer lands in the scene on the stage: fitted, where it is seen and covers nothing that matters, selected.
import { newScreen } from '../../core/inputs/screen.ts'
import { newInputLayer } from '../../core/layers/input.ts'
import { newCamera } from '../../core/inputs/camera.ts'
import { useI18n } from 'vue-i18n'
import { arrivalOf, placeOfMark } from '../../core/layout/arrival.ts'
import { addContents } from '../../core/show/contents.ts'
import { addInput, addLayer, countOfKind } from '../../core/show/edits.ts'
import { bringInFrontOf } from '../../core/show/layer-set-edits.ts'
import type { CameraInput, Content, Input, Layer, ScreenInput, Show } from '../../core/show/show.ts'
import { useEngineStore } from '../engine/engine.store.ts'
import { useInputsStore } from '../inputs/inputs.store.ts'
import { useHeads } from '../inputs/use-heads.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'

export function usePlacing() {
  const { t } = useI18n()
  const showStore = useShowStore()
  const engine = useEngineStore()
  const inputs = useInputsStore()
  const { heads } = useHeads()

  /**
   * Puts a layer into the scene on the stage, or the group that is open there, or into another scene, with its input or contents if they are new; selected if it is on the stage.
   * Null where there is no such scene, it is locked or full, or another tab edits.
   */
  function place(layer: Layer, input: Input | null, contents: readonly Content[] = [], sceneId = showStore.sceneId): string | null {
    if (sceneId === null || showStore.show?.scenes.some(({ id }) => id === sceneId) !== true || showStore.isStopped(sceneId)) return null
    const isPlaced = showStore.edit(t('edits.addLayer', { name: layer.name }), (show) => {
      const ready = addContents(input === null ? show : addInput(show, input), contents)
      const now = ready.scenes.find(({ id }) => id === sceneId)
      if (now === undefined) return show
      const arrival = arrivalOf(ready, now, layer, { infos: engine.infos, heads: heads.value })
      return intoOpenGroup(addLayer(ready, sceneId, arrival.layer, arrival.index), sceneId, [layer.id])
    })
    if (!isPlaced) return null
    if (sceneId === showStore.sceneId) showStore.selectLayer(layer.id)
    return layer.id
  }

  /** Brings layers that came into the scene on the stage into the group that is open there, in front of what is in it; they stay where they are. */
  function intoOpenGroup(show: Show, sceneId: string, layerIds: readonly string[]): Show {
    const front = showStore.openGroups.length > 0 && sceneId === showStore.sceneId ? showStore.list.at(-1) : undefined
    return front === undefined ? show : bringInFrontOf(show, sceneId, layerIds, [front.id])
  }

  /** A layer of an input, which joins the show if it is new. */
  function placeInput(input: Input, isNew: boolean, sceneId?: string): string | null {
    return place(newInputLayer(input, showStore.show!.canvas, makeId), isNew ? input : null, [], sceneId)
  }

  /** A picture of a size: one that is small stays as large as it is, in the upper right, as marks are. */
  function placePicture(input: Input, size: { readonly widthPx: number; readonly heightPx: number }, sceneId?: string): string | null {
    const { canvas } = showStore.show!
    const layer = newInputLayer(input, canvas, makeId)
    return place({ ...layer, placement: { ...layer.placement, ...placeOfMark(size, canvas) } }, input, [], sceneId)
  }

  function placeCamera(device: CameraInput['device']): string | null {
    return placeInput(newCamera(numbered('camera', t('build.newCameraName')), device, showStore.show!.canvas, makeId), true)
  }

  /** A screen; one that is to be shared is chosen in the browser at once. To be called from a press. */
  function placeScreen(type: ScreenInput['source']['type']): string | null {
    const source: ScreenInput['source'] = type === 'standin' ? { type } : { type, label: '' }
    const name = type === 'standin' ? t('screens.standinName') : t('screens.name')
    const input = newScreen(numbered('screen', name), source, makeId)
    const layerId = placeInput(input, true)
    if (layerId !== null && type === 'shared') void inputs.shareScreen(input.id)
    return layerId
  }

  function numbered(kind: Input['kind'], name: string): string {
    const count = countOfKind((showStore.show as Show).inputs, kind)
    return count === 0 ? name : `${name} ${count + 1}`
  }

  return { place, intoOpenGroup, placeInput, placePicture, placeCamera, placeScreen, numbered }
}
