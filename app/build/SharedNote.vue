<script setup lang="ts">
// Where else the same thing is shown, and the way to a copy of one's own.
import { contentOf } from '../../core/layers/content.ts'
import { contentIdOf } from '../../core/layers/index.ts'
import { ChevronDown } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { makeOwn, makeSame } from '../../core/show/contents.ts'
import { layersOf } from '../../core/layers/tree.ts'
import type { Layer } from '../../core/show/show.ts'
import ActionMenu, { type MenuAction } from '../base/ActionMenu.vue'
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
/** Other things of the same kind, each under the first layer that shows it. */
const choices = computed<MenuAction[]>(() => {
  const own = contentIdOf(props.layer)
  const kindOf = (id: string) => contentOf(showStore.show!, id)?.kind
  const seen = new Set<string | null>([own])
  return (showStore.show?.scenes ?? []).flatMap((scene) =>
    layersOf(scene).flatMap((layer) => {
      const contentId = contentIdOf(layer)
      if (contentId === null || kindOf(contentId) !== kindOf(own ?? '') || seen.has(contentId)) return []
      seen.add(contentId)
      return [{ label: t('layer.sameAsOf', { name: layer.name, scene: scene.name }), run: () => show(contentId) }]
    }),
  )
})

function show(contentId: string): void {
  const { sceneId } = showStore
  if (sceneId !== null) showStore.edit(t('edits.again', { name: props.layer.name }), (now) => makeSame(now, sceneId, props.layer.id, contentId))
}
</script>

<template>
  <ActionMenu v-if="others.length === 0 && choices.length > 0" class="mt-1" :actions="choices" :label="t('layer.sameAs')">
    <span class="inline-flex min-h-6 items-center gap-1 font-medium text-green hover:underline"
      >{{ t('layer.sameAs') }}<ChevronDown :size="13" aria-hidden="true"
    /></span>
  </ActionMenu>
  <div v-if="others.length > 0" class="mt-2 rounded-md bg-wash px-2 py-1.5 text-[12px] leading-snug">
    <p>{{ t('inspector.alsoIn', { scenes: others.map(({ name }) => name).join(', ') }) }}</p>
    <BaseButton kind="quiet" class="mt-1" @click="copy">{{ t('inspector.makeOwn') }}</BaseButton>
  </div>
</template>
