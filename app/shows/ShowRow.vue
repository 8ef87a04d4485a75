<script setup lang="ts">
// A show of the library. What the list knows of it is there at once; its document is read, and its pictures drawn, when it comes into view.
import { useElementVisibility, whenever } from '@vueuse/core'
import { Ellipsis } from 'lucide-vue-next'
import { computed, shallowRef, useTemplateRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Show } from '../../core/show/show.ts'
import ActionMenu, { type MenuAction } from '../base/ActionMenu.vue'
import { figure } from '../base/decimals.ts'
import InlineName from '../base/InlineName.vue'
import { api, type ShowSummary } from '../show/api.ts'
import { timeOf } from './relative-time.ts'
import ShowCover from './ShowCover.vue'

const props = defineProps<{ summary: ShowSummary; actions: readonly MenuAction[]; isRenaming: boolean }>()
const emit = defineEmits<{ rename: [name: string]; renamed: [] }>()
/** How wide covers are drawn: sharp where a pixel of the page is two of the screen. */
const COVER_PX = { first: 672, scene: 320 } as const
/** Scenes that a row has room for. */
const SCENES_SHOWN = 4

const { t, locale } = useI18n()
const row = useTemplateRef<HTMLLIElement>('row')
const isSeen = useElementVisibility(row)
const show = shallowRef<Show | null>(null)
let readRevision = 0

async function read(): Promise<void> {
  const { id, revision } = props.summary
  if (revision === readRevision) return
  readRevision = revision
  try {
    show.value = (await api.getShow(id)).show
  } catch {
    // Without pictures the list still tells name and scenes; they are asked for again when the row is seen anew.
    readRevision = 0
  }
}
whenever(isSeen, () => void read(), { immediate: true })
watch(
  () => props.summary.revision,
  () => {
    if (isSeen.value) void read()
  },
)

const shown = computed(() => props.summary.scenes.slice(0, SCENES_SHOWN))
const sceneIn = (id: string | undefined) => show.value?.scenes.find((scene) => scene.id === id) ?? null
</script>

<template>
  <li ref="row" class="grid gap-x-7 gap-y-4 border-b border-line py-6 md:grid-cols-[336px_minmax(0,1fr)]">
    <div class="relative self-start overflow-hidden rounded-xl border border-line hover:border-brass">
      <ShowCover :show="show" :scene="sceneIn(shown[0]?.id)" :width-px="COVER_PX.first" />
      <RouterLink
        :to="{ name: 'build', params: { showId: summary.id } }"
        class="absolute inset-0 rounded-xl"
        :aria-label="`${t('shows.open')}: ${summary.name}`"
        tabindex="-1"
      />
    </div>
    <div class="flex min-w-0 flex-col">
      <div class="flex items-start gap-2">
        <div class="min-w-0 flex-1">
          <div class="font-head text-[21px] leading-snug font-bold">
            <InlineName
              v-if="isRenaming"
              :model-value="summary.name"
              :label="t('shows.nameLabel')"
              is-editing
              @update:model-value="emit('rename', $event)"
              @done="emit('renamed')"
            />
            <h2 v-else class="flex">
              <RouterLink :to="{ name: 'build', params: { showId: summary.id } }" class="min-w-0 truncate hover:underline" dir="auto" :title="summary.name">{{
                summary.name
              }}</RouterLink>
            </h2>
          </div>
          <p class="text-soft">
            {{ t('shows.scenes', summary.sceneCount) }} · {{ figure(`${summary.canvas.widthPx}×${summary.canvas.heightPx}`) }} ·
            {{ t('shows.changed', { when: timeOf(summary.updatedAt, locale) }) }}
          </p>
        </div>
        <ActionMenu :actions="actions" :label="t('shows.more', { name: summary.name })" align="right" is-icon>
          <Ellipsis :size="18" aria-hidden="true" />
        </ActionMenu>
      </div>
      <ol class="mt-auto grid grid-cols-4 gap-3 pt-4" :aria-label="t('shows.scenesOf', { name: summary.name })">
        <li v-for="scene in shown" :key="scene.id" class="min-w-0">
          <RouterLink
            :to="{ name: 'build', params: { showId: summary.id }, query: { scene: scene.id } }"
            class="block rounded-md hover:text-ink"
            :title="t('shows.openAt', { scene: scene.name })"
          >
            <ShowCover :show="show" :scene="sceneIn(scene.id)" :width-px="COVER_PX.scene" class="rounded-md" />
            <span class="mt-1 block truncate text-[12px] text-soft" dir="auto">{{ scene.name }}</span>
          </RouterLink>
        </li>
      </ol>
      <p v-if="summary.sceneCount > SCENES_SHOWN" class="mt-1 text-end font-num text-[12px] text-soft">
        {{ t('shows.moreScenes', { count: summary.sceneCount - SCENES_SHOWN }) }}
      </p>
    </div>
  </li>
</template>
