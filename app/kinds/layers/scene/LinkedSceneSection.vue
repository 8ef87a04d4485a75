<script setup lang="ts">
// A layer that shows a scene or a graphic: it follows every change of that, until it is made a copy.
import { Copy, SquareArrowOutUpRight } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { unlinkScene } from '../../../../core/show/unlink-scene.ts'
import type { SceneLayer } from '../../../../core/show/show.ts'
import BaseButton from '../../../base/BaseButton.vue'
import { makeId } from '../../../show/make-id.ts'
import { useShowStore } from '../../../show/show.store.ts'

const props = defineProps<{ layer: SceneLayer }>()
const { t } = useI18n()
const showStore = useShowStore()
const shown = computed(() => showStore.show?.scenes.find(({ id }) => id === props.layer.sceneId) ?? null)

function open(): void {
  showStore.selectScene(props.layer.sceneId)
  showStore.selectLayer(null)
}

function unlink(): void {
  const { sceneId } = showStore
  if (sceneId !== null) showStore.edit(t('edits.ownCopy', { name: props.layer.name }), (show) => unlinkScene(show, sceneId, props.layer.id, makeId))
}
</script>

<template>
  <div v-if="shown" class="mt-2 rounded-md bg-wash px-2 py-1.5 text-[12px] leading-snug">
    <p>{{ t('layer.follows', { name: shown.name }) }}</p>
    <div class="mt-1 flex flex-wrap gap-x-2">
      <BaseButton kind="quiet" :icon="SquareArrowOutUpRight" @click="open">{{ t('layer.openShown') }}</BaseButton>
      <BaseButton kind="quiet" :icon="Copy" @click="unlink">{{ t('layer.makeOwn') }}</BaseButton>
    </div>
  </div>
</template>
