<script setup lang="ts">
// The stack seen from the side: the wall at the left, the audience at the right. Above it, what comes into the scene.
import { isGroup } from '../../core/layers/group.ts'
import { ChevronDown, ChevronLeft, CircleAlert, Eye, Image, Info, PanelRightClose, PanelRightOpen, PenLine, Type, X } from 'lucide-vue-next'
import { useElementSize, useScroll } from '@vueuse/core'
import { computed, nextTick, useTemplateRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { VueDraggable } from 'vue-draggable-plus'
import { moveLayer } from '../../core/show/edits.ts'
import type { Layer } from '../../core/show/show.ts'
import AddMenu from './AddMenu.vue'
import ActionMenu from '../base/ActionMenu.vue'
import IconButton from '../base/IconButton.vue'
import DeckBar from '../decks/DeckBar.vue'
import { useDecksStore } from '../decks/decks.store.ts'
import { useCommands } from '../commands/use-commands.ts'
import { useDrawingStore } from '../drawing/drawing.store.ts'
import { announce } from '../shell/announce.ts'
import { useShowStore } from '../show/show.store.ts'
import DepthPane from './DepthPane.vue'
import LayoutMenu from './layouts/LayoutMenu.vue'
import { FILE_KINDS } from './use-add-files.ts'
import { useAddLayer } from './use-add-layer.ts'
import { useDepthNotes } from './use-depth-notes.ts'
import { useUnseen } from './use-unseen.ts'
import { useRemoveLayer } from './use-remove-layer.ts'

defineProps<{ isInspectorOpen: boolean; canFold: boolean }>()
const emit = defineEmits<{ toggleInspector: [] }>()
const { t, locale } = useI18n()
const showStore = useShowStore()
const decks = useDecksStore()
const { addText, chooseFiles, onFilesChosen } = useAddLayer()
const drawing = useDrawingStore()
const { run } = useCommands()
const { note, fix, cures, dismiss } = useDepthNotes()
const { unseenOf } = useUnseen()
const removeLayer = useRemoveLayer()
const strip = useTemplateRef<InstanceType<typeof VueDraggable>>('strip')
const stripElement = computed(() => (strip.value?.$el as HTMLElement | undefined) ?? null)
const { x: scrolled } = useScroll(stripElement)
const { width: stripWidth } = useElementSize(stripElement)

const layers = computed(() => showStore.list)
const group = computed(() => showStore.openGroups.at(-1) ?? null)
/** The pane in the tab order. */
const stopId = computed(() => (layers.value.some((layer) => layer.id === showStore.layerId) ? showStore.layerId : (layers.value.at(-1)?.id ?? null)))
const paneCount = computed(() => layers.value.length)
/** How many panes are scrolled out of view. */
const beyond = computed(() => {
  void scrolled.value
  void stripWidth.value
  const element = stripElement.value
  if (element === null || paneCount.value === 0) return 0
  return Math.max(0, Math.round(((element.scrollWidth - element.clientWidth - element.scrollLeft) / Math.max(1, element.scrollWidth)) * paneCount.value))
})
/** Why a layer cannot be seen, in two words; null when it can. */
const shortOf = (layer: Layer) => unseenOf(layer.id)?.short ?? (layer.visible ? null : t('unseen.short.hidden'))
const placeOf = (index: number) => t('build.depthPlace', { n: index + 1, count: layers.value.length })

async function move(layerId: string, index: number): Promise<void> {
  const { sceneId } = showStore
  const layer = layers.value.find((candidate) => candidate.id === layerId)
  if (sceneId === null || layer === undefined || index < 0 || index >= layers.value.length) return
  showStore.edit(t('edits.moveLayer', { name: layer.name }), (show) => moveLayer(show, sceneId, layerId, index))
  await focusOn(layerId)
  announce(t('build.placeOf', { name: layer.name, n: layers.value.findIndex(({ id }) => id === layerId) + 1, count: layers.value.length }))
}

function onDrop(event: { oldIndex?: number | undefined; newIndex?: number | undefined }): void {
  const layer = layers.value[event.oldIndex ?? -1]
  if (layer !== undefined && event.newIndex !== undefined && event.newIndex !== event.oldIndex) void move(layer.id, event.newIndex)
}

/** Moving an element takes its focus away. */
async function focusOn(layerId: string): Promise<void> {
  await nextTick()
  stripElement.value?.querySelector<HTMLElement>(`[data-layer-id="${CSS.escape(layerId)}"] button`)?.focus()
}

/** Control adds one layer; Shift adds all from the last one. */
function onSelect(event: MouseEvent, layerId: string, index: number): void {
  const from = layers.value.findIndex(({ id }) => id === showStore.layerId)
  if (event.shiftKey && from >= 0) {
    const between = layers.value.slice(Math.min(from, index), Math.max(from, index) + 1).map(({ id }) => id)
    showStore.selectLayers([...between.filter((id) => id !== showStore.layerId), showStore.layerId!])
  } else if (event.ctrlKey || event.metaKey) showStore.toggleLayer(layerId)
  else showStore.selectLayer(layerId)
}

/** Keys that select several: true when it was one of them. */
function selectsMore(event: KeyboardEvent, layerId: string, index: number): boolean {
  if (event.key === ' ') showStore.toggleLayer(layerId)
  else if (event.key === 'a') showStore.selectLayers(layers.value.map(({ id }) => id))
  else if (event.key === 'ArrowLeft' || event.key === 'ArrowRight') {
    const next = layers.value[index + (event.key === 'ArrowLeft' ? -1 : 1)]
    if (next !== undefined) void focusOn(next.id)
  } else return false
  announce(t('layer.manySelected', showStore.selectedIds.length))
  return true
}

/** Into a group; its frontmost layer has the focus then. */
async function openAt(index: number): Promise<void> {
  const layer = layers.value[index]
  if (!isGroup(layer)) return
  showStore.openGroup(layer)
  announce(t('layer.isOpen', { name: layer.name }))
  if (showStore.layerId !== null) await focusOn(showStore.layerId)
}

/** Out of the group again, which has the focus then. */
async function leave(): Promise<void> {
  if (!showStore.leaveGroup() || showStore.layerId === null) return
  await focusOn(showStore.layerId)
}

function onKey(event: KeyboardEvent, layerId: string, index: number): void {
  if (event.altKey) return
  if (event.ctrlKey || event.metaKey) {
    if (selectsMore(event, layerId, index)) event.preventDefault()
    return
  }
  const by = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0
  const next = layers.value[index + by]
  if (by !== 0 && event.shiftKey) void move(layerId, index + by)
  else if (by !== 0 && next !== undefined) {
    showStore.selectLayer(next.id)
    void focusOn(next.id)
  } else if (event.key === 'Delete' || event.key === 'Backspace') {
    const gone = showStore.selectedIds.includes(layerId) ? showStore.selectedIds : [layerId]
    removeLayer(gone)
    const neighbour = layers.value[Math.min(layers.value.length - 1, Math.max(0, index - gone.length))]
    if (neighbour !== undefined) void focusOn(neighbour.id)
  } else if (event.key === 'ArrowDown') void openAt(index)
  else if (event.key === 'ArrowUp' || (event.key === 'Escape' && group.value !== null)) void leave()
  else if (by === 0) return
  event.preventDefault()
}

/** Following the advice removes its button, so the focus moves to the layer it moved. */
function follow(): void {
  const layerId = fix()
  if (layerId === null) return
  showStore.selectLayer(layerId)
  void focusOn(layerId)
}

watch(
  () => showStore.layerId,
  async (layerId) => {
    await nextTick()
    if (layerId !== null)
      stripElement.value?.querySelector(`[data-layer-id="${CSS.escape(layerId)}"]`)?.scrollIntoView?.({ inline: 'nearest', block: 'nearest' })
  },
)
/** What the menus offer too gives way to the buttons of a deck. */
const leavesRoom = computed(() => (decks.current === null ? '' : 'max-[1500px]:hidden'))
</script>

<template>
  <section class="flex min-h-0 min-w-0 flex-col bg-paper px-2.5 pb-1" :aria-label="t('build.depth')">
    <div class="flex min-h-8 min-w-0 items-center gap-1 max-[819px]:flex-wrap">
      <AddMenu />
      <LayoutMenu />
      <IconButton :icon="Type" class="size-7!" :class="leavesRoom" :label="t('build.quickText')" @click="addText" />
      <!-- No stop for Tab, which comes by here on every way to the inspector: D and the palette take the pen as well. -->
      <IconButton :icon="PenLine" tabindex="-1" class="size-7!" :label="t('commands.does.draw')" :is-on="drawing.isOn" @click="run('draw')" />
      <IconButton :icon="Image" class="size-7!" :class="leavesRoom" :label="t('build.quickPicture')" @click="chooseFiles()" />
      <input type="file" :accept="FILE_KINDS" multiple class="hidden" data-testid="picture-file" @change="onFilesChosen" />
      <DeckBar class="ms-1" />
      <template v-if="group">
        <IconButton :icon="ChevronLeft" class="ms-1 size-7! rtl:-scale-x-100" :label="t('layer.leaveGroup')" @click="leave" />
        <h2 class="min-w-12 truncate font-head text-[14px] font-bold" :title="group.name">{{ t('layer.inside', { name: group.name }) }}</h2>
      </template>
      <template v-else>
        <h2 class="ms-2 font-head text-[14px] font-bold">{{ t('build.depth') }}</h2>
        <span class="truncate text-soft max-[1100px]:hidden" :class="note || decks.current ? 'max-[1500px]:hidden' : ''" :title="t('build.depthHint')">{{
          t('build.depthHint')
        }}</span>
      </template>
      <span
        v-if="note"
        :role="note.kind === 'trouble' ? 'status' : 'note'"
        class="ms-2 flex min-w-0 items-center gap-1.5"
        :class="note.kind === 'trouble' ? 'text-brass' : 'text-soft'"
        data-testid="depth-note"
      >
        <component :is="note.kind === 'trouble' ? CircleAlert : Info" :size="14" class="shrink-0" aria-hidden="true" />
        <span class="min-w-8 truncate" :title="note.words">{{ note.words }}</span>
        <button
          v-if="note.fix"
          type="button"
          class="min-h-6 min-w-12 truncate rounded px-1 font-medium underline underline-offset-2 hover:text-ink"
          :title="note.fix"
          @click="follow"
        >
          {{ note.fix }}
        </button>
        <ActionMenu v-if="cures.length > 0" :actions="cures" :label="t('build.otherCures')" is-icon>
          <ChevronDown :size="14" aria-hidden="true" />
        </ActionMenu>
        <IconButton v-if="note.kind === 'note'" :icon="X" size="small" :label="t('build.meantSo')" @click="dismiss" />
      </span>
      <span class="flex-1"></span>
      <slot />
      <IconButton
        v-if="canFold"
        :icon="isInspectorOpen ? PanelRightClose : PanelRightOpen"
        class="size-7!"
        :label="isInspectorOpen ? t('inspector.foldAway') : t('inspector.open')"
        :aria-expanded="isInspectorOpen"
        data-opens-inspector
        @click="emit('toggleInspector')"
      />
    </div>
    <!-- A picture of the depth seen from the side: it reads the same in every language, as the keys do. -->
    <div dir="ltr" class="relative flex min-h-0 flex-1 items-stretch">
      <div class="absolute inset-x-0 bottom-[19px] h-px bg-line" aria-hidden="true"></div>
      <div class="mt-0.5 mb-[19px] flex shrink-0 items-center border-e-[5px] border-line pe-0.5 text-[11px] text-soft" aria-hidden="true">
        <span class="[writing-mode:vertical-rl] rotate-180">{{ t('build.wall') }}</span>
      </div>
      <VueDraggable
        ref="strip"
        :model-value="[...layers]"
        tag="ol"
        class="flex min-w-0 flex-1 items-end overflow-x-auto overflow-y-hidden px-2"
        :animation="150"
        :force-fallback="true"
        :fallback-tolerance="4"
        direction="horizontal"
        :title="t('build.depthHelp')"
        data-testid="depth"
        @end="onDrop"
      >
        <DepthPane
          v-for="(layer, index) in layers"
          :key="layer.id"
          v-memo="[layer, index, layers.length, showStore.sceneId, showStore.selectedIds.includes(layer.id), layer.id === stopId, shortOf(layer), locale]"
          :layer="layer"
          :scene-id="showStore.sceneId!"
          :is-selected="showStore.selectedIds.includes(layer.id)"
          :is-stop="layer.id === stopId"
          :place="placeOf(index)"
          :unseen="shortOf(layer)"
          @select="onSelect($event, layer.id, index)"
          @key="onKey($event, layer.id, index)"
          @open="openAt(index)"
        />
      </VueDraggable>
      <span v-if="beyond > 0" class="mb-[19px] self-center px-1 font-num text-[12px] text-soft" :title="t('build.beyond', { count: beyond })"
        >+{{ beyond }}</span
      >
      <div class="mb-[20px] flex shrink-0 flex-col items-center justify-end ps-1.5 text-green" aria-hidden="true">
        <Eye :size="18" />
        <span class="text-[11px] text-soft">{{ t('build.audience') }}</span>
      </div>
    </div>
  </section>
</template>
