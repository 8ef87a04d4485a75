<script setup lang="ts">
import { Ellipsis, LayoutPanelLeft, Lock, Plus } from 'lucide-vue-next'
import { useElementSize, useScroll } from '@vueuse/core'
import { computed, nextTick, onScopeDispose, ref, useTemplateRef, watch, watchEffect } from 'vue'
import { useI18n } from 'vue-i18n'
import { VueDraggable } from 'vue-draggable-plus'
import { ownScenesOf } from '../../core/show/edits.ts'
import type { Scene } from '../../core/show/show.ts'
import ActionMenu from '../base/ActionMenu.vue'
import IconButton from '../base/IconButton.vue'
import InlineName from '../base/InlineName.vue'
import GraphicList from '../graphics/GraphicList.vue'
import { useAirStore } from '../air/air.store.ts'
import { sceneTarget } from '../commands/scene-target.ts'
import LivePicture from '../live-picture/LivePicture.vue'
import { useShowStore } from '../show/show.store.ts'
import { useLayouts } from './layouts/use-layouts.ts'
import { useSceneActions } from './use-scene-actions.ts'
import { markColours } from './mark-colours.ts'

const emit = defineEmits<{ openInspector: [] }>()
const { open: openLayouts } = useLayouts()
const { t, locale } = useI18n()
const showStore = useShowStore()
const air = useAirStore()
const renamingId = ref<string | null>(null)
const list = useTemplateRef<InstanceType<typeof VueDraggable>>('list')
const listElement = computed(() => (list.value?.$el as HTMLElement | undefined) ?? null)
const { y: scrolled } = useScroll(listElement)
const { height: listHeight } = useElementSize(listElement)

const { add, move, rename, actionsOf, targetOf } = useSceneActions(renamingId, { onMoved: focusOn, openInspector: () => emit('openInspector') })
const scenes = computed(() => (showStore.show === null ? [] : ownScenesOf(showStore.show)))

// Commands act on the scene on the stage.
watchEffect(() => (sceneTarget.value = showStore.scene === null || showStore.scene.graphic !== null ? null : targetOf(showStore.scene)))
onScopeDispose(() => (sceneTarget.value = null))

const canvas = computed(() => showStore.show!.canvas)
const thumb = computed(() => {
  const { widthPx, heightPx } = canvas.value
  return { widthPx: 224, heightPx: Math.round((224 * heightPx) / widthPx) }
})
const sceneCount = computed(() => scenes.value.length)
/** How many scenes are scrolled out of view below. */
const below = computed(() => {
  void scrolled.value
  void listHeight.value
  const element = listElement.value
  if (element === null || sceneCount.value === 0) return 0
  const hidden = element.scrollHeight - element.clientHeight - element.scrollTop
  return Math.max(0, Math.round((hidden / Math.max(1, element.scrollHeight)) * sceneCount.value))
})

/** Adds a scene and opens the layout chooser for it. */
async function addFromLayout(): Promise<void> {
  if (!add()) return
  await nextTick()
  openLayouts()
}

/** Moving an element takes its focus away. */
async function focusOn(sceneId: string): Promise<void> {
  await nextTick()
  listElement.value?.querySelector<HTMLElement>(`[data-scene-id="${CSS.escape(sceneId)}"] [data-scene-button]`)?.focus()
}

function onDrop(event: { oldIndex?: number | undefined; newIndex?: number | undefined }): void {
  const scene = scenes.value[event.oldIndex ?? -1]
  if (scene !== undefined && event.newIndex !== undefined && event.newIndex !== event.oldIndex) void move(scene, event.newIndex)
}

function onKey(event: KeyboardEvent, scene: Scene, index: number): void {
  const by = event.key === 'ArrowUp' || event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowDown' || event.key === 'ArrowRight' ? 1 : 0
  if (event.altKey || event.ctrlKey || event.metaKey) return
  if (event.key === 'F2') renamingId.value = scene.id
  else if (/^\p{L}$/u.test(event.key)) return findByName(event.key, index)
  else if (by !== 0 && event.shiftKey) void move(scene, index + by)
  else if (by !== 0) goTo(index + by)
  else return
  event.preventDefault()
}

let typed = ''
let typedMs = -Infinity

/** Letters go to the next scene whose name begins with them. */
function findByName(letter: string, from: number): void {
  typed = performance.now() - typedMs < 800 ? typed + letter : letter
  typedMs = performance.now()
  const start = typed.length === 1 ? from + 1 : from
  const order = scenes.value.map((_, i) => (start + i) % scenes.value.length)
  const found = order.find((i) => scenes.value[i]!.name.toLowerCase().startsWith(typed.toLowerCase()))
  if (found !== undefined) goTo(found)
}

const isSeen = (scene: Scene) => scene.id === air.onAirId && !air.showsCard
const tagOf = (scene: Scene) => (scene.id === air.onAirId ? t(air.showsCard ? 'build.behindCard' : 'build.onAir') : isFirst(scene) ? t('build.firstTag') : null)

/** Whether the feed would start with this scene; marked only if there are several. */
const isFirst = (scene: Scene) => !air.isFeedOn && scene.id === showStore.onAirId && scenes.value.length > 1

/** What a row depends on besides its scene (for v-memo): editing one scene re-renders only its row. */
const lookOf = (scene: Scene, index: number) => [
  index,
  scenes.value.length,
  thumb.value,
  scene.id === showStore.sceneId,
  scene.id === showStore.onAirId,
  scene.id === renamingId.value,
  scene.id === air.onAirId,
  air.isFeedOn,
  isSeen(scene),
  tagOf(scene),
  locale.value,
]

function goTo(index: number): void {
  const scene = scenes.value[index]
  if (scene === undefined) return
  showStore.selectScene(scene.id)
  void focusOn(scene.id)
}

function doneRenaming(scene: Scene): void {
  renamingId.value = null
  void focusOn(scene.id)
}

watch(
  () => showStore.sceneId,
  async (sceneId) => {
    await nextTick()
    if (sceneId !== null) listElement.value?.querySelector(`[data-scene-id="${CSS.escape(sceneId)}"]`)?.scrollIntoView?.({ block: 'nearest' })
  },
)
</script>

<template>
  <aside class="scenes flex min-h-0 min-w-0 flex-col" :aria-label="t('build.scenes')">
    <div class="flex flex-wrap items-center justify-between pt-1 pe-1 ps-2">
      <h2 class="font-head text-[15px] font-bold">{{ t('build.scenes') }}</h2>
      <span class="flex">
        <IconButton :icon="Plus" size="small" :label="t('build.addScene')" @click="add" />
        <IconButton :icon="LayoutPanelLeft" size="small" :label="t('layouts.fromLayout')" @click="addFromLayout" />
      </span>
    </div>
    <VueDraggable
      ref="list"
      :model-value="[...scenes]"
      tag="ol"
      class="scene-list min-h-0 flex-1 overflow-y-auto px-1 pb-1"
      :animation="150"
      :delay="120"
      :delay-on-touch-only="true"
      filter="input,[data-menu]"
      :prevent-on-filter="false"
      @end="onDrop"
    >
      <li v-for="(scene, index) in scenes" :key="scene.id" v-memo="[scene, ...lookOf(scene, index)]" class="group relative mb-1" :data-scene-id="scene.id">
        <button
          type="button"
          data-scene-button
          class="block w-full min-w-0 rounded-md border p-[3px] text-start"
          :class="scene.id === showStore.sceneId ? 'border-brass bg-wash' : 'border-transparent hover:bg-sunk'"
          :tabindex="scene.id === showStore.sceneId ? 0 : -1"
          :aria-describedby="tagOf(scene) ? `tag-${scene.id}` : undefined"
          :aria-current="scene.id === showStore.sceneId ? 'true' : undefined"
          aria-keyshortcuts="Shift+ArrowUp Shift+ArrowDown F2"
          :title="`${index + 1} · ${scene.name}${isFirst(scene) ? ` · ${t('build.isFirst')}` : ''}`"
          @click="showStore.selectScene(scene.id)"
          @dblclick="renamingId = scene.id"
          @keydown="onKey($event, scene, index)"
        >
          <span class="relative block">
            <LivePicture
              class="pointer-events-none aspect-video overflow-hidden rounded-[3px] bg-well"
              :request="{ kind: 'scene', sceneId: scene.id, isSmall: true }"
              :width-px="thumb.widthPx"
              :height-px="thumb.heightPx"
              label=""
            />
            <span
              class="absolute bottom-1 start-1 min-w-4 rounded-[3px] px-1 text-center font-num text-[11px] leading-4"
              :class="isFirst(scene) ? 'bg-[#e0b04b] text-black' : 'bg-black/70 text-white'"
              aria-hidden="true"
              >{{ index + 1 }}</span
            >
          </span>
          <span v-if="renamingId !== scene.id" class="mt-0.5 block pe-6 ps-0.5"
            ><span dir="auto" class="line-clamp-2 text-[12.5px] leading-4 font-medium">
              <span v-if="scene.mark" class="me-1 inline-block size-2 rounded-full" :style="{ background: markColours[scene.mark] }"></span
              ><Lock v-if="scene.locked" :size="10" class="me-0.5 inline" :aria-label="t('layer.locked')" />{{ scene.name }}
            </span></span
          >
        </button>
        <span
          v-if="tagOf(scene)"
          :id="`tag-${scene.id}`"
          class="pointer-events-none absolute top-1 start-1 truncate rounded-[3px] px-1 text-[10.5px] leading-4 text-white"
          :class="isSeen(scene) ? 'bg-[#b83425] font-semibold' : 'bg-black/70'"
          >{{ tagOf(scene) }}</span
        >
        <div v-if="renamingId === scene.id" class="px-0.5 pb-0.5">
          <InlineName :model-value="scene.name" :label="t('build.rename')" is-editing @update:model-value="rename(scene, $event)" @done="doneRenaming(scene)" />
        </div>
        <ActionMenu
          :actions="actionsOf(scene)"
          :label="t('build.sceneMenu', { name: scene.name })"
          is-icon
          data-menu
          data-over-card
          class="scene-menu absolute end-0 bottom-0"
        >
          <Ellipsis :size="15" aria-hidden="true" />
        </ActionMenu>
      </li>
    </VueDraggable>
    <p v-if="below > 0" class="border-t border-line py-0.5 text-center font-num text-[11px] text-soft" aria-hidden="true">+{{ below }}</p>
    <GraphicList />
  </aside>
</template>

<style scoped>
@media (max-width: 819px), (max-height: 519px) {
  .scene-list {
    display: flex;
    gap: 4px;
    overflow: auto hidden;
  }
  .scene-list > li {
    width: 112px;
    flex: none;
  }
}
</style>
