// What the palette finds: commands, what can be added and done with the selected layer, scenes, layers, inputs.
import { Captions, Clapperboard, Layers2 } from 'lucide-vue-next'
import { computed, type Component } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute, useRouter } from 'vue-router'
import { inputKindOf } from '../../core/inputs/index.ts'
import { layersOf } from '../../core/layers/tree.ts'
import { graphicsOf, ownScenesOf } from '../../core/show/edits.ts'
import { useAirStore } from '../air/air.store.ts'
import { useAddLayer } from '../build/use-add-layer.ts'
import { inputFaceOf } from '../kinds/inputs/index.ts'
import { useShowStore } from '../show/show.store.ts'
import type { PaletteItem } from './find.ts'
import { keyWords } from './keys.ts'
import { commandIds } from './list.ts'
import { useKeysStore } from './keys.store.ts'
import { useCommands } from './use-commands.ts'
import { useSettingItems } from './use-setting-items.ts'

export function usePaletteItems() {
  const { t } = useI18n()
  const route = useRoute()
  const router = useRouter()
  const showStore = useShowStore()
  const air = useAirStore()
  const keys = useKeysStore()
  const { commands } = useCommands()
  const { actions: additions } = useAddLayer()
  const { settings } = useSettingItems()

  const ofCommands = computed(() =>
    commandIds.flatMap((id): PaletteItem[] => {
      const [key] = keys.keysOf(id)
      const { group, icon, isFor, whyNot, run } = commands.value[id]
      if (id === 'palette' || !isFor) return []
      return [{ id, title: t(`commands.does.${id}`), group: t(`commands.groups.${group}`), whyNot, icon, key: key === undefined ? null : keyWords(key), run }]
    }),
  )

  const ofAdditions = computed(() =>
    additions.value.map(({ label, icon, disabled, why, detail, run }, index): PaletteItem => ({
      id: `add-${index}-${label}`,
      title: label,
      group: t('commands.groups.add'),
      whyNot: disabled === true ? (why ?? detail ?? t('commands.why.locked')) : null,
      icon: icon ?? null,
      key: null,
      run,
    })),
  )

  const things = computed<PaletteItem[]>(() => {
    const { show, scene } = showStore
    if (show === null) return []
    const thing = (group: 'scene' | 'graphic' | 'layers' | 'input', id: string, title: string, icon: Component, run: () => void): PaletteItem => ({
      id: `${group}-${id}`,
      title,
      group: t(`commands.groups.${group}`),
      whyNot: null,
      icon,
      key: null,
      run,
    })
    return [
      ...ownScenesOf(show).map(({ id, name }) => thing('scene', id, name, Clapperboard, () => void toBuild({ scene: id }))),
      ...graphicsOf(show).flatMap(({ id, name }) => [
        thing('graphic', id, name, Captions, () => void toBuild({ scene: id })),
        thing('graphic', `show-${id}`, t('graphics.show', { name }), Captions, () => air.graphics.toggle(id)),
      ]),
      ...(scene === null ? [] : layersOf(scene)).map(({ id, name }) => thing('layers', id, name, Layers2, () => void toBuild({ scene: scene!.id, layer: id }))),
      ...show.inputs
        .filter((input) => inputKindOf(input).hasPicture)
        .map((input) =>
          thing(
            'input',
            input.id,
            input.name,
            inputFaceOf(input).icon,
            () => void router.push({ name: 'bench', params: { showId: showStore.showId!, inputId: input.id } }),
          ),
        ),
    ]
  })

  /** Shows a scene, and perhaps a layer of it, on the stage. */
  async function toBuild({ scene, layer }: { readonly scene: string; readonly layer?: string }): Promise<void> {
    if (route.name !== 'build') await router.push({ name: 'build', params: { showId: showStore.showId! } })
    showStore.selectScene(scene)
    showStore.selectLayer(layer ?? null)
  }

  const items = computed<PaletteItem[]>(() => {
    const isBuilding = route.name === 'build' && showStore.scene !== null
    return [
      ...ofCommands.value,
      // What is there already comes before what would be added under the same name.
      ...things.value,
      ...(isBuilding ? ofAdditions.value : []),
      ...settings.value,
    ]
  })

  return { items }
}
