<script setup lang="ts">
// Where else the same thing is shown, and the way to a copy of one's own.
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { contentIdOf, makeOwn } from '../../core/show/contents.ts'
import { layersOf } from '../../core/show/layer-tree.ts'
import type { Layer } from '../../core/show/show.ts'
import BaseButton from '../base/BaseButton.vue'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'

const props = defineProps<{ layer: Layer }>()
const { t } = useI18n()
const showStore = useShowStore()

const others = computed(() => {
  const contentId = contentIdOf(props.layer)
  if (contentId === null) return []
  return (showStore.show?.scenes ?? []).filter((scene) => layersOf(scene).some((layer) => layer.id !== props.layer.id && contentIdOf(layer) === contentId))
})

function copy(): void {
  const { sceneId } = showStore
  if (sceneId === null) return
  const contentId = makeId()
  showStore.edit(t('edits.ownCopy', { name: props.layer.name }), (show) => makeOwn(show, sceneId, props.layer.id, () => contentId))
}
</script>

<template>
  <div v-if="others.length > 0" class="mt-2 rounded-md bg-wash px-2 py-1.5 text-[12px] leading-snug">
    <p>{{ t('inspector.alsoIn', { scenes: others.map(({ name }) => name).join(', ') }) }}</p>
    <BaseButton kind="quiet" class="mt-1" @click="copy">{{ t('inspector.makeOwn') }}</BaseButton>
  </div>
</template>
