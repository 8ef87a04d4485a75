<script setup lang="ts">
import { Copy, Ellipsis, Eye, EyeOff, Image, Lock, LockOpen, Pencil, Trash2, Type } from 'lucide-vue-next'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { addLayer, updateLayer } from '../../core/show/edits.ts'
import { copyLayer } from '../../core/show/create.ts'
import type { Layer } from '../../core/show/show.ts'
import ActionMenu, { type MenuAction } from '../base/ActionMenu.vue'
import BaseButton from '../base/BaseButton.vue'
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
import { useAddLayer } from './use-add-layer.ts'
import { useRemoveLayer } from './use-remove-layer.ts'

const emit = defineEmits<{ close: [] }>()
const { t } = useI18n()
const showStore = useShowStore()
const isRenaming = ref(false)
const removeLayer = useRemoveLayer()
const { addText, choosePictures, onFilesChosen } = useAddLayer()
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
  showStore.edit(t('edits.duplicate', { name: layer.value.name }), (show) => addLayer(show, sceneId, copy, index))
  showStore.selectLayer(copy.id)
}

function remove(): void {
  if (showStore.layerId !== null) removeLayer(showStore.layerId)
}

const actions = computed<MenuAction[]>(() => [
  { label: t('layer.name'), icon: Pencil, run: () => (isRenaming.value = true) },
  { label: t('layer.duplicate'), icon: Copy, run: duplicate },
  { label: t('layer.remove'), icon: Trash2, run: remove },
])
</script>

<template>
  <aside class="@container min-h-0 min-w-0 overflow-y-auto px-2.5 py-2" :aria-label="t('inspector.title')" @keydown.escape="emit('close')">
    <EmptyState v-if="layer === null" class="px-1!" :title="t('inspector.nothing')" :hint="t('inspector.nothingHint')">
      <BaseButton :icon="Type" @click="addText">{{ t('build.addText') }}</BaseButton>
      <BaseButton :icon="Image" @click="choosePictures">{{ t('build.addPicture') }}</BaseButton>
      <input ref="fileInput" type="file" accept="image/png,image/jpeg,image/webp,image/gif" multiple class="hidden" @change="onFilesChosen" />
    </EmptyState>
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
      <InputSection v-if="input" :input="input" />
      <CleanUpSection v-if="input && input.kind !== 'colour'" :key="layer.id" :input="input" :layer-id="layer.id" :here="layer.treatment" />
      <PlaceSection :layer="layer" />
      <FrameSection :layer="layer" />
    </template>
  </aside>
</template>
