<script setup lang="ts">
import { Copy, Ellipsis, Eye, EyeOff, Group, Image, Link2, Lock, LockOpen, Pencil, Trash2, Type, Ungroup } from 'lucide-vue-next'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { layersOf } from '../../core/show/layer-tree.ts'
import { addLayer, updateLayer } from '../../core/show/edits.ts'
import { addContents, contentIdOf, shapeOf, withOwnContents } from '../../core/show/contents.ts'
import { copyLayer } from '../../core/show/create.ts'
import { groupLayers, ungroup } from '../../core/show/group-edits.ts'
import type { Layer } from '../../core/show/show.ts'
import ActionMenu, { type MenuAction } from '../base/ActionMenu.vue'
import BaseButton from '../base/BaseButton.vue'
import EmptyState from '../base/EmptyState.vue'
import IconButton from '../base/IconButton.vue'
import InlineName from '../base/InlineName.vue'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import CleanUpSection from './CleanUpSection.vue'
import FillSection from './FillSection.vue'
import FrameSection from './FrameSection.vue'
import InputSection from './InputSection.vue'
import ManyLayers from './ManyLayers.vue'
import OutlineSection from './OutlineSection.vue'
import PlaceSection from './PlaceSection.vue'
import TextSection from './TextSection.vue'
import { useAddLayer } from './use-add-layer.ts'
import { useRemoveLayer } from './use-remove-layer.ts'

const emit = defineEmits<{ close: [] }>()
const { t } = useI18n()
const showStore = useShowStore()
const isRenaming = ref(false)
const removeLayer = useRemoveLayer()
const { addText, chooseFiles } = useAddLayer()
const layer = computed(() => showStore.layer)
const input = computed(() => {
  const current = layer.value
  return current?.kind === 'input' ? showStore.show?.inputs.find((candidate) => candidate.id === current.inputId) : undefined
})
const about = computed(() => {
  if (layer.value?.kind === 'group') return t('layer.groupOf', layer.value.layers.length)
  const kind = t(`layer.kinds.${input.value?.kind ?? kindOf(layer.value)}`)
  if (input.value === undefined) return kind
  const id = input.value.id
  const count = showStore.show!.scenes.filter((scene) => layersOf(scene).some((candidate) => candidate.kind === 'input' && candidate.inputId === id)).length
  return `${kind}, ${t('layer.usedIn', count)}`
})

const outline = computed(() => (layer.value?.kind === 'shape' ? shapeOf(showStore.show!, layer.value).outline : null))

/** What a layer is called that shows no input of the show. */
function kindOf(current: Layer | null) {
  return current === null || current.kind === 'input' ? 'picture' : current.kind
}

/** The layer directly behind the selected one, in the same list. */
const behind = computed(() => {
  const layers = showStore.scene?.layers ?? []
  return layers[layers.findIndex(({ id }) => id === showStore.layerId) - 1] ?? null
})

function groupWithBehind(): void {
  const { sceneId } = showStore
  const other = behind.value
  if (sceneId === null || layer.value === null || other === null) return
  const groupId = makeId()
  const ids = [other.id, layer.value.id]
  showStore.edit(t('edits.group', { name: layer.value.name }), (show) => groupLayers(show, sceneId, ids, t('layer.groupName'), () => groupId))
  showStore.selectLayer(groupId)
}

function takeApart(): void {
  const { sceneId } = showStore
  const group = layer.value
  if (sceneId === null || group?.kind !== 'group') return
  showStore.edit(t('edits.ungroup', { name: group.name }), (show) => ungroup(show, sceneId, group.id, makeId))
  showStore.selectLayer(group.layers.at(-1)?.id ?? null)
}

function change(label: string, part: (layer: Layer) => Layer): void {
  const { sceneId, layerId } = showStore
  if (sceneId !== null && layerId !== null) showStore.edit(label, (show) => updateLayer(show, sceneId, layerId, part))
}

/** A copy in front of the layer: of what it shows too, or of the layer alone, which then shows the same thing. */
function duplicate(shown: 'own' | 'same'): void {
  const { sceneId, scene } = showStore
  if (sceneId === null || scene === null || layer.value === null) return
  const same = copyLayer(layer.value, makeId)
  const own = shown === 'same' ? { layers: [same], contents: [] } : withOwnContents(showStore.show!, [same], makeId)
  const copy = own.layers[0]!
  const index = scene.layers.indexOf(layer.value) + 1
  showStore.edit(t(shown === 'same' ? 'edits.again' : 'edits.duplicate', { name: layer.value.name }), (show) =>
    addLayer(addContents(show, own.contents), sceneId, copy, index),
  )
  showStore.selectLayer(copy.id)
}

function remove(): void {
  if (showStore.layerId !== null) removeLayer([showStore.layerId])
}

const actions = computed<MenuAction[]>(() => [
  { label: t('layer.name'), icon: Pencil, run: () => (isRenaming.value = true) },
  { label: t('layer.duplicate'), icon: Copy, run: () => duplicate('own') },
  ...(layer.value !== null && contentIdOf(layer.value) !== null ? [{ label: t('layer.sameAgain'), icon: Link2, run: () => duplicate('same') }] : []),
  ...(behind.value === null ? [] : [{ label: t('layer.groupWith', { name: behind.value.name }), icon: Group, run: groupWithBehind }]),
  ...(layer.value?.kind === 'group' ? [{ label: t('layer.ungroup'), icon: Ungroup, run: takeApart }] : []),
  { label: t('layer.remove'), icon: Trash2, run: remove },
])
</script>

<template>
  <aside class="@container min-h-0 min-w-0 overflow-y-auto px-2.5 py-2" :aria-label="t('inspector.title')" @keydown.escape="emit('close')">
    <EmptyState v-if="layer === null" class="px-1!" :title="t('inspector.nothing')" :hint="t('inspector.nothingHint')">
      <BaseButton :icon="Type" @click="addText">{{ t('build.addText') }}</BaseButton>
      <BaseButton :icon="Image" @click="chooseFiles()">{{ t('build.addPicture') }}</BaseButton>
    </EmptyState>
    <ManyLayers v-else-if="showStore.selectedLayers.length > 1" :layers="showStore.selectedLayers" />
    <template v-else>
      <div class="flex items-center gap-0.5">
        <h2 class="min-w-0 flex-1 font-head text-[15px] font-bold" @dblclick="isRenaming = true">
          <InlineName
            :model-value="layer.name"
            :label="t('layer.name')"
            :is-editing="isRenaming"
            @update:model-value="(name) => change(t('edits.rename', { name: layer!.name }), (current) => ({ ...current, name }))"
            @done="isRenaming = false"
          />
        </h2>
        <IconButton
          :icon="layer.visible ? Eye : EyeOff"
          size="small"
          :label="layer.visible ? t('layer.hide') : t('layer.show')"
          @click="change(t('edits.showLayer', { name: layer!.name }), (current) => ({ ...current, visible: !current.visible }))"
        />
        <IconButton
          :icon="layer.locked ? Lock : LockOpen"
          size="small"
          :label="layer.locked ? t('layer.unlock') : t('layer.lock')"
          :is-on="layer.locked"
          @click="change(t('edits.lockLayer', { name: layer!.name }), (current) => ({ ...current, locked: !current.locked }))"
        />
        <ActionMenu :actions="actions" :label="t('layer.more', { name: layer.name })" align="right" is-icon>
          <Ellipsis :size="16" aria-hidden="true" />
        </ActionMenu>
      </div>
      <p class="text-soft">{{ about }}</p>
      <TextSection v-if="layer.kind === 'text'" :key="layer.id" :layer="layer" />
      <FillSection v-if="layer.kind === 'shape'" :key="layer.id" :layer="layer" />
      <OutlineSection v-if="layer.kind === 'shape' && outline" :key="layer.id" :layer="layer" :outline="outline" />
      <InputSection v-if="input" :input="input" />
      <CleanUpSection v-if="input && input.kind !== 'colour'" :key="layer.id" :input="input" :layer-id="layer.id" :here="layer.treatment" />
      <PlaceSection :layer="layer" />
      <FrameSection :layer="layer" />
    </template>
  </aside>
</template>
