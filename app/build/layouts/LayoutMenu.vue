<script setup lang="ts">
// Layouts as small live pictures of what they would make of this scene. The card stays while they are tried.
import { onClickOutside } from '@vueuse/core'
import { LayoutPanelLeft, X } from 'lucide-vue-next'
import { computed, nextTick, useTemplateRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import type { LayoutName } from '../../../core/layout/arrange/layouts.ts'
import ChoiceBar from '../../base/ChoiceBar.vue'
import IconButton from '../../base/IconButton.vue'
import { useShowStore } from '../../show/show.store.ts'
import { useAddFiles } from '../use-add-files.ts'
import LayoutTile from './LayoutTile.vue'
import PartSelect from './PartSelect.vue'
import { FROM_FILE, NOTHING, useCast } from './use-cast.ts'
import { useLayouts } from './use-layouts.ts'

const { t } = useI18n()
const showStore = useShowStore()
const { isOpen, side, drafts, take, takeAgain, open, tidy } = useLayouts()
const { cast, people, peopleOptions, choosePeople, page, pageOptions, choosePage, setPage, firstCamera, layers } = useCast()
const { chooseFiles } = useAddFiles()
const anchor = useTemplateRef<HTMLElement>('anchor')
const panel = useTemplateRef<HTMLElement>('panel')
const grid = useTemplateRef<HTMLElement>('grid')
onClickOutside(panel, () => (isOpen.value = false), { ignore: [anchor, '[role="listbox"]', '[data-sonner-toaster]'] })

const PREVIEW_PX = 176
const sides = computed(() => (['left', 'right'] as const).map((value) => ({ value, label: t(`layouts.sides.${value}`) })))
const nameOf = (id: string | undefined) => layers.value.find((layer) => layer.id === id)?.name ?? ''
const peopleWords = computed(() => {
  const [first, ...others] = cast.value.presenters
  if (first === undefined) return t('layouts.willCome', { name: firstCamera.value.label })
  return others.length === 0 ? nameOf(first) : t('layouts.people', { first: nameOf(first), count: others.length }, others.length)
})
const pageWords = computed(() => (page.value === NOTHING ? t('layouts.nothing') : nameOf(cast.value.page ?? undefined)))
const note = computed(() => {
  if (showStore.scene?.locked === true) return t('layouts.locked')
  return cast.value.page === null ? t('layouts.needsPage') : t('layouts.hint')
})

function onPage(value: string): void {
  if (value === FROM_FILE)
    chooseFiles((layerId) => {
      setPage(layerId)
      takeAgain()
    })
  else {
    choosePage(value)
    takeAgain()
  }
}

function onPeople(values: readonly string[]): void {
  choosePeople(values)
  takeAgain()
}

function close(): void {
  isOpen.value = false
  anchor.value?.querySelector('button')?.focus()
}

/** Arrow keys go from one to the next, as in every grid of one choice. */
function onKey(event: KeyboardEvent, index: number): void {
  const buttons = [...(grid.value?.querySelectorAll<HTMLElement>('button') ?? [])]
  const steps: Readonly<Record<string, number>> = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -5, ArrowDown: 5 }
  const by = steps[event.key]
  if (by === undefined) return
  event.preventDefault()
  buttons[Math.min(buttons.length - 1, Math.max(0, index + by))]?.focus()
}

watch(isOpen, async (is) => {
  if (!is) return tidy()
  await nextTick()
  panel.value?.focus()
})
const labelOf = (name: LayoutName) => t(`layouts.names.${name}`)
</script>

<template>
  <span ref="anchor" class="inline-flex">
    <button
      type="button"
      class="inline-flex h-7 items-center gap-1.5 rounded-lg border border-line bg-raised pe-2.5 ps-2 font-medium hover:border-soft"
      :aria-expanded="isOpen"
      aria-haspopup="dialog"
      @click="isOpen ? close() : open()"
    >
      <LayoutPanelLeft :size="15" aria-hidden="true" />
      {{ t('layouts.open') }}
    </button>
  </span>
  <Teleport to="body">
    <div
      v-if="isOpen && showStore.scene"
      ref="panel"
      class="fixed inset-x-2 bottom-2 z-50 mx-auto flex w-fit max-w-full outline-none"
      tabindex="-1"
      @keydown.escape="close"
    >
      <section
        role="dialog"
        :aria-label="t('layouts.title', { scene: showStore.scene.name })"
        class="max-h-[calc(100vh-16px)] w-[min(1010px,calc(100vw-24px))] overflow-auto rounded-xl border border-line bg-raised p-3 shadow-[0_10px_40px_#00000040]"
        data-testid="layouts"
      >
        <div class="flex flex-wrap items-center gap-x-3 gap-y-2">
          <PartSelect
            class="w-72 max-w-full"
            :model-value="people"
            :label="t('layouts.presenter')"
            :words="peopleWords"
            :options="peopleOptions"
            :disabled="showStore.scene.locked"
            @update:model-value="onPeople"
          />
          <PartSelect
            class="w-80 max-w-full"
            :model-value="page"
            :label="t('layouts.page')"
            :words="pageWords"
            :options="pageOptions"
            :disabled="showStore.scene.locked"
            @update:model-value="onPage"
          />
          <span class="ms-auto flex items-center gap-2 text-soft"
            >{{ t('layouts.side') }} <ChoiceBar v-model="side" :label="t('layouts.side')" :choices="sides"
          /></span>
          <IconButton :icon="X" :label="t('layouts.close')" @click="close" />
        </div>
        <ul ref="grid" class="mt-3 grid grid-cols-[repeat(auto-fill,minmax(176px,1fr))] gap-2.5">
          <li v-for="(draft, index) in drafts" :key="draft.name" class="min-w-0">
            <button
              type="button"
              class="block w-full rounded-lg border p-1 text-start"
              :class="draft.isTaken ? 'border-brass bg-wash' : 'border-transparent hover:bg-sunk'"
              :aria-pressed="draft.isTaken"
              :disabled="showStore.scene.locked"
              @click="take(draft.name)"
              @keydown="onKey($event, index)"
            >
              <LayoutTile :draft="draft" :width-px="PREVIEW_PX" />
              <span class="mt-1 block truncate px-0.5 font-medium">{{ labelOf(draft.name) }}</span>
            </button>
          </li>
        </ul>
        <p class="mt-2 text-soft" role="status">{{ note }}</p>
      </section>
    </div>
  </Teleport>
</template>
