<script setup lang="ts">
import { Copy, Ellipsis, Eye, EyeOff, Lock, LockOpen, Pencil, Trash2 } from 'lucide-vue-next'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { addLayer, removeLayer, updateLayer } from '../../core/show/edits.ts'
import { copyLayer } from '../../core/show/create.ts'
import type { Layer } from '../../core/show/show.ts'
import ActionMenu, { type MenuAction } from '../base/ActionMenu.vue'
import EmptyState from '../base/EmptyState.vue'
import IconButton from '../base/IconButton.vue'
import InlineName from '../base/InlineName.vue'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import CleanUpSection from './CleanUpSection.vue'
import FrameSection from './FrameSection.vue'
import InputSection from './InputSection.vue'
import PlaceSection from './PlaceSection.vue'
import TextSection from './TextSection.vue'

const { t } = useI18n()
const showStore = useShowStore()
const isRenaming = ref(false)
const layer = computed(() => showStore.layer)
const input = computed(() => {
  const current = layer.value
  return current?.kind === 'input' ? showStore.show?.inputs.find((candidate) => candidate.id === current.inputId) : undefined
})
const about = computed(() => {
  const kind = t(`layer.kinds.${input.value?.kind ?? 'text'}`)
  if (input.value === undefined) return kind
  const id = input.value.id
  const count = showStore.show!.scenes.filter((scene) => scene.layers.some((candidate) => candidate.kind === 'input' && candidate.inputId === id)).length
  return `${kind}, ${t('layer.usedIn', count)}`
})

function change(label: string, part: (layer: Layer) => Layer): void {
  const { sceneId, layerId } = showStore
  if (sceneId !== null && layerId !== null) showStore.edit(label, (show) => updateLayer(show, sceneId, layerId, part))
}

function duplicate(): void {
  const { sceneId, scene } = showStore
  if (sceneId === null || scene === null || layer.value === null) return
  const copy = copyLayer(layer.value, makeId)
  const index = scene.layers.indexOf(layer.value) + 1
  showStore.edit(t('edits.duplicate'), (show) => addLayer(show, sceneId, copy, index))
  showStore.selectLayer(copy.id)
}

function remove(): void {
  const { sceneId, layerId } = showStore
  if (sceneId === null || layerId === null) return
  showStore.edit(t('edits.removeLayer'), (show) => removeLayer(show, sceneId, layerId))
  showStore.selectLayer(null)
}

const actions = computed<MenuAction[]>(() => [
  { label: t('layer.name'), icon: Pencil, run: () => (isRenaming.value = true) },
  { label: t('layer.duplicate'), icon: Copy, run: duplicate },
  { label: t('layer.remove'), icon: Trash2, run: remove },
])
</script>

<template>
  <aside class="min-h-0 overflow-y-auto px-3.5 py-3">
    <EmptyState v-if="layer === null" :title="t('inspector.nothing')" :hint="t('inspector.nothingHint')" />
    <template v-else>
      <div class="flex items-center gap-0.5">
        <h2 class="min-w-0 flex-1 font-head text-[16px] font-bold" @dblclick="isRenaming = true">
          <InlineName
            :model-value="layer.name"
            :label="t('layer.name')"
            :is-editing="isRenaming"
            @update:model-value="(name) => change(t('edits.rename'), (current) => ({ ...current, name }))"
            @done="isRenaming = false"
          />
        </h2>
        <IconButton
          :icon="layer.visible ? Eye : EyeOff"
          :label="layer.visible ? t('layer.hide') : t('layer.show')"
          @click="change(t('edits.showLayer'), (current) => ({ ...current, visible: !current.visible }))"
        />
        <IconButton
          :icon="layer.locked ? Lock : LockOpen"
          :label="layer.locked ? t('layer.unlock') : t('layer.lock')"
          :is-on="layer.locked"
          @click="change(t('edits.lockLayer'), (current) => ({ ...current, locked: !current.locked }))"
        />
        <ActionMenu :actions="actions" :label="t('layer.more', { name: layer.name })" align="right" is-icon>
          <Ellipsis :size="16" aria-hidden="true" />
        </ActionMenu>
      </div>
      <p class="text-soft">{{ about }}</p>
      <PlaceSection :layer="layer" />
      <TextSection v-if="layer.kind === 'text'" :layer="layer" />
      <FrameSection :layer="layer" />
      <InputSection v-if="input" :input="input" />
      <CleanUpSection v-if="input && input.kind !== 'colour'" :input="input" :here="layer.treatment" />
    </template>
  </aside>
</template>
