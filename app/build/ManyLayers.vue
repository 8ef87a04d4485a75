<script setup lang="ts">
// What can be done with several layers at once.
import { Copy, Eye, EyeOff, Group, Lock, LockOpen, Trash2 } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { canGroup, groupLayers } from '../../core/show/group-edits.ts'
import { LIMITS } from '../../core/schema/limits.ts'
import { duplicateLayers, updateLayers } from '../../core/show/layer-set-edits.ts'
import type { Layer } from '../../core/show/show.ts'
import BaseButton from '../base/BaseButton.vue'
import IconButton from '../base/IconButton.vue'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import AlignRow from './AlignRow.vue'
import LayerNames from './LayerNames.vue'
import { useRemoveLayer } from './use-remove-layer.ts'

const props = defineProps<{ layers: readonly Layer[] }>()
const { t } = useI18n()
const showStore = useShowStore()
const removeLayer = useRemoveLayer()
const ids = computed(() => props.layers.map(({ id }) => id))
const name = computed(() => t('layer.many', props.layers.length))
/** Why they cannot be grouped; undefined when they can. */
const tooDeep = computed(() => (showStore.scene === null || canGroup(showStore.scene, ids.value) ? undefined : t('layer.tooDeep', { count: LIMITS.depth })))
const isSomeVisible = computed(() => props.layers.some(({ visible }) => visible))
const isSomeLocked = computed(() => props.layers.some(({ locked }) => locked))

function change(label: string, part: Partial<Pick<Layer, 'visible' | 'locked'>>): void {
  const { sceneId } = showStore
  if (sceneId !== null) showStore.edit(label, (show) => updateLayers(show, sceneId, ids.value, (layer) => ({ ...layer, ...part })))
}

function group(): void {
  const { sceneId } = showStore
  if (sceneId === null) return
  const groupId = makeId()
  const together = ids.value
  const isMade = showStore.edit(t('edits.group', { name: name.value }), (show) => groupLayers(show, sceneId, together, t('layer.groupName'), () => groupId))
  if (isMade) showStore.selectLayer(groupId)
}

function duplicate(): void {
  const { sceneId } = showStore
  if (sceneId === null) return
  let copies: readonly string[] = []
  const isMade = showStore.edit(t('edits.duplicate', { name: name.value }), (show) => {
    const made = duplicateLayers(show, sceneId, ids.value, makeId)
    copies = made.copyIds
    return made.show
  })
  if (isMade && copies.length > 0) showStore.selectLayers(copies)
}
</script>

<template>
  <div class="flex items-center gap-0.5">
    <h2 dir="auto" class="min-w-0 flex-1 truncate font-head text-[15px] font-bold">{{ name }}</h2>
    <IconButton
      :icon="isSomeVisible ? Eye : EyeOff"
      size="small"
      :label="isSomeVisible ? t('layer.hide') : t('layer.show')"
      @click="change(t('edits.showLayer', { name }), { visible: !isSomeVisible })"
    />
    <IconButton
      :icon="isSomeLocked ? Lock : LockOpen"
      size="small"
      :label="isSomeLocked ? t('layer.unlock') : t('layer.lock')"
      :is-on="isSomeLocked"
      @click="change(t('edits.lockLayer', { name }), { locked: !isSomeLocked })"
    />
  </div>
  <p class="text-soft">{{ t('layer.manyHint') }}</p>
  <AlignRow class="mt-2" />
  <LayerNames class="my-2 border-y border-line py-1.5" :layers="layers" @choose="(id) => showStore.selectLayer(id)" />
  <div class="flex flex-wrap gap-1.5">
    <BaseButton :icon="Group" :disabled="tooDeep !== undefined" :title="tooDeep" @click="group">{{ t('layer.group') }}</BaseButton>
    <BaseButton :icon="Copy" @click="duplicate">{{ t('layer.duplicate') }}</BaseButton>
    <BaseButton :icon="Trash2" @click="removeLayer(ids)">{{ t('layer.removeMany') }}</BaseButton>
  </div>
</template>
