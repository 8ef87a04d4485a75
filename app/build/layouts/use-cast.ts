// Who plays which part in the layouts of the scene on the stage: guessed, until the presenter chooses.
import { inputIdOf } from '../../../core/layers/index.ts'
import { newSceneLayer } from '../../../core/layers/scene.ts'
import { computed, shallowReactive } from 'vue'
import { useI18n } from 'vue-i18n'
import { castOf, type Cast } from '../../../core/layout/arrange/cast.ts'
import { canBePage } from '../../../core/layout/inside-page.ts'
import { updateLayer } from '../../../core/show/edits.ts'
import { standinCameras, type CameraInput, type Input, type Layer } from '../../../core/show/show.ts'
import { useDevices } from '../../devices/use-devices.ts'
import { makeId } from '../../show/make-id.ts'
import { useShowStore } from '../../show/show.store.ts'
import { usePlacing } from '../use-placing.ts'

/** Something that can play a part. `value` tells what it is. */
export interface PartOption {
  readonly value: string
  readonly label: string
  readonly group: string
}

/** Cameras that are left out, and pages that were chosen, by the scene's id; null: no page. */
const leftOut = shallowReactive(new Map<string, readonly string[]>())
const chosenPages = shallowReactive(new Map<string, string | null>())

export const NOTHING = 'nothing'
export const FROM_FILE = 'file'

export function useCast() {
  const { t } = useI18n()
  const showStore = useShowStore()
  const { cameras: devices } = useDevices()
  const { place, placeInput, placeCamera, placeScreen } = usePlacing()

  const layers = computed(() => showStore.scene?.layers ?? [])
  const cast = computed<Cast>(() => {
    const { show, scene } = showStore
    if (show === null || scene === null) return { presenters: [], page: null }
    const guessed = castOf(show, scene, showStore.layer?.id ?? null)
    const out = leftOut.get(scene.id) ?? []
    const chosen = chosenPages.get(scene.id)
    const isThere = chosen === null || layers.value.some(({ id }) => id === chosen)
    return { presenters: guessed.presenters.filter((id) => !out.includes(id)), page: chosen === undefined || !isThere ? guessed.page : chosen }
  })
  const inputsOf = (kinds: readonly Input['kind'][]) => (showStore.show?.inputs ?? []).filter(({ kind }) => kinds.includes(kind))
  const layerOfInput = (inputId: string) => layers.value.find((layer) => inputIdOf(layer) === inputId && layer.part === null)

  /** The camera that comes with a layout where there is none: the show's first, the machine's first, or a stand-in. */
  const firstCamera = computed<{ readonly label: string; readonly bring: () => void }>(() => {
    const [known] = inputsOf(['camera'])
    if (known !== undefined) return { label: known.name, bring: () => placeInput(known, false) }
    const [device] = devices.value
    if (device !== undefined) return { label: device.label, bring: () => placeCamera(deviceOf(device)) }
    return { label: t('camera.standin', { what: t('standins.cloth') }), bring: () => placeCamera({ type: 'standin', standin: 'cloth' }) }
  })

  const peopleOptions = computed<PartOption[]>(() => [
    ...inputsOf(['camera']).map((input) => ({ value: `input:${input.id}`, label: input.name, group: t('layouts.cameras') })),
    ...devices.value.map((device) => ({ value: `device:${device.deviceId}`, label: device.label, group: t('layouts.devices') })),
    ...standinCameras.map((standin) => ({ value: `standin:${standin}`, label: t(`standins.${standin}`), group: t('layouts.standins') })),
  ])
  /** Those of `peopleOptions` that are in the cast. */
  const people = computed(() =>
    cast.value.presenters.flatMap((id) => {
      const layer = layers.value.find((one) => one.id === id)
      const inputId = layer === undefined ? null : inputIdOf(layer)
      return inputId === null ? [] : [`input:${inputId}`]
    }),
  )

  const pageOptions = computed<PartOption[]>(() => {
    const { show, scene } = showStore
    if (show === null || scene === null) return []
    const here = layers.value.filter((layer) => !layer.locked && canBePage(show, layer))
    const hereInputs = new Set(here.map(inputIdOf))
    return [
      { value: NOTHING, label: t('layouts.nothing'), group: '' },
      ...here.map((layer) => ({ value: `layer:${layer.id}`, label: layer.name, group: t('layouts.inScene') })),
      ...inputsOf(['screen', 'picture', 'clip'])
        .filter(({ id }) => !hereInputs.has(id))
        .map((input) => ({ value: `input:${input.id}`, label: input.name, group: t('build.addParts.input') })),
      { value: 'share', label: t('screens.share'), group: t('layouts.more') },
      { value: 'standin', label: t('screens.standin'), group: t('layouts.more') },
      { value: FROM_FILE, label: t('layouts.fromFile'), group: t('layouts.more') },
      ...show.scenes
        .filter((other) => other.id !== scene.id)
        .map((other) => ({ value: `scene:${other.id}`, label: other.name, group: t('build.addParts.scene') })),
    ]
  })
  const page = computed(() => (cast.value.page === null ? NOTHING : `layer:${cast.value.page}`))

  /** Brings people into the cast, and leaves those out that are not among `values`. */
  function choosePeople(values: readonly string[]): void {
    const { scene } = showStore
    if (scene === null) return
    const before = people.value
    for (const value of values.filter((one) => !before.includes(one))) bringPerson(value)
    for (const value of before.filter((one) => !values.includes(one))) {
      const layer = layerOfInput(value.slice('input:'.length))
      if (layer === undefined) continue
      leftOut.set(scene.id, [...(leftOut.get(scene.id) ?? []), layer.id])
      showStore.edit(t('edits.showLayer', { name: layer.name }), (show) => updateLayer(show, scene.id, layer.id, (one) => ({ ...one, visible: false })))
    }
  }

  function bringPerson(value: string): void {
    const { scene } = showStore
    const [sort, ...rest] = value.split(':')
    const id = rest.join(':')
    const layer = sort === 'input' ? layerOfInput(id) : undefined
    if (scene !== null && layer !== undefined) {
      leftOut.set(
        scene.id,
        (leftOut.get(scene.id) ?? []).filter((one) => one !== layer.id),
      )
      showStore.edit(t('edits.showLayer', { name: layer.name }), (show) => updateLayer(show, scene.id, layer.id, (one) => ({ ...one, visible: true })))
      return
    }
    const input = showStore.show?.inputs.find((one) => one.id === id)
    const device = devices.value.find(({ deviceId }) => deviceId === id)
    if (sort === 'input' && input !== undefined) placeInput(input, false)
    else if (sort === 'device' && device !== undefined) placeCamera(deviceOf(device))
    else if (sort === 'standin') placeCamera({ type: 'standin', standin: standinCameras.find((one) => one === id) ?? 'cloth' })
  }

  /** Chooses what is presented; brings it into the scene if it is not there. `FROM_FILE` is for who asked to see to. */
  function choosePage(value: string): void {
    const { scene, show } = showStore
    if (scene === null || show === null) return
    const [sort, id = ''] = value.split(':')
    const input = show.inputs.find((one) => one.id === id)
    const other = show.scenes.find((one) => one.id === id)
    let layerId: string | null = null
    if (sort === 'layer') layerId = id
    else if (sort === 'input' && input !== undefined) layerId = placeInput(input, false)
    else if (sort === 'scene' && other !== undefined) layerId = place(newSceneLayer(other, show.canvas, makeId), null)
    else if (sort === 'share') layerId = placeScreen('shared')
    else if (sort === 'standin') layerId = placeScreen('standin')
    setPage(layerId)
  }

  function setPage(layerId: string | null): void {
    if (showStore.sceneId !== null) chosenPages.set(showStore.sceneId, layerId)
  }

  return {
    cast,
    people,
    peopleOptions,
    choosePeople,
    page,
    pageOptions,
    choosePage,
    setPage,
    firstCamera,
    layers: layers as Readonly<{ value: readonly Layer[] }>,
  }
}

function deviceOf({ deviceId, label }: MediaDeviceInfo): CameraInput['device'] {
  return { type: 'device', deviceId, label: label.slice(0, 200) }
}
