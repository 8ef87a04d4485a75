<script setup lang="ts">
// What can be added to the scene: new sources, text, shapes, and what the show has already, found by typing.
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions, Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { Plus, Search } from 'lucide-vue-next'
import { computed, ref, useTemplateRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { useFloatingPanel } from '../base/use-floating-panel.ts'
import { found } from '../commands/find.ts'
import LivePicture from '../live-picture/LivePicture.vue'
import { useAddLayer, type AddAction, type AddPart } from './use-add-layer.ts'

const { t } = useI18n()
const { actions } = useAddLayer()
const anchor = useTemplateRef<HTMLElement>('anchor')
const panel = useTemplateRef<HTMLElement>('panel')
const floatingStyles = useFloatingPanel(anchor, panel, () => 'top-start')
const typed = ref('')
const THUMB = { widthPx: 96, heightPx: 54 }

const fitting = computed(() => {
  const all = actions.value.map((action, index) => ({
    ...action,
    id: String(index),
    title: action.label,
    group: t(`build.addParts.${action.part}`),
    whyNot: null,
  }))
  return typed.value.trim() === '' ? all : found(all, typed.value)
})
const of = (...parts: readonly AddPart[]) => fitting.value.filter(({ part }) => parts.includes(part))
const columns = computed(() => [
  [
    { part: 'source' as const, actions: of('source') },
    { part: 'words' as const, actions: of('words') },
    { part: 'shape' as const, actions: of('shape') },
  ].filter((group) => group.actions.length > 0),
  [
    { part: 'input' as const, actions: of('input') },
    { part: 'scene' as const, actions: of('scene') },
  ].filter((group) => group.actions.length > 0),
])

function choose(action: AddAction | null, close: () => void): void {
  if (action === null) return
  close()
  typed.value = ''
  action.run()
}
</script>

<template>
  <Popover v-slot="{ close }" as="div">
    <span ref="anchor" class="inline-flex">
      <PopoverButton
        class="inline-flex h-7 items-center gap-1 rounded-lg border border-line bg-raised pe-2.5 ps-1.5 font-medium hover:border-soft"
        @click="typed = ''"
      >
        <Plus :size="15" aria-hidden="true" />
        {{ t('build.add') }}
      </PopoverButton>
    </span>
    <Teleport to="body">
      <div ref="panel" class="z-50 flex" :style="floatingStyles">
        <PopoverPanel
          focus
          role="dialog"
          :aria-label="t('build.add')"
          class="flex max-h-full w-[min(660px,calc(100vw-16px))] flex-col overflow-hidden rounded-xl border border-line bg-raised shadow-[0_8px_28px_#0000002e]"
          data-testid="add-menu"
          @keydown.escape.capture.stop.prevent="close()"
        >
          <Combobox nullable :model-value="null" @update:model-value="choose($event, close)">
            <div class="flex shrink-0 items-center gap-2 border-b border-line px-3">
              <Search :size="15" class="shrink-0 text-soft" aria-hidden="true" />
              <ComboboxInput
                class="h-9 min-w-0 flex-1 bg-transparent outline-none placeholder:text-soft"
                :placeholder="t('build.addHint')"
                :aria-label="t('build.addHint')"
                @change="typed = $event.target.value"
              />
            </div>
            <p v-if="fitting.length === 0" class="px-4 py-5 text-center text-soft" role="status">{{ t('commands.none') }}</p>
            <ComboboxOptions static as="div" class="grid min-h-0 flex-1 grid-cols-2 divide-x divide-line overflow-hidden" :aria-label="t('build.add')">
              <div v-for="(groups, side) in columns" :key="side" role="presentation" class="min-h-0 overflow-y-auto p-1.5">
                <div v-for="group in groups" :key="group.part" role="group" :aria-label="t(`build.addParts.${group.part}`)">
                  <p role="presentation" class="px-2.5 pt-1.5 pb-1 text-[12px] text-soft">{{ t(`build.addParts.${group.part}`) }}</p>
                  <div role="presentation" :class="group.part === 'shape' ? 'flex flex-wrap gap-1 px-1.5 pb-1' : ''">
                    <ComboboxOption v-for="action in group.actions" :key="action.id" v-slot="{ active }" :value="action" as="template">
                      <div
                        v-if="group.part === 'shape'"
                        class="grid size-9 cursor-pointer place-items-center rounded-lg border border-line"
                        :class="active ? 'bg-wash' : ''"
                        :aria-label="action.label"
                        :data-tip="action.label"
                      >
                        <component :is="action.icon" :size="17" :stroke-width="1.8" aria-hidden="true" />
                      </div>
                      <div v-else class="flex cursor-pointer items-center gap-2.5 rounded-lg px-2.5 py-1.5" :class="active ? 'bg-wash' : ''">
                        <LivePicture
                          v-if="action.request"
                          class="pointer-events-none h-[36px] w-16 shrink-0 overflow-hidden rounded bg-well"
                          :request="action.request"
                          :width-px="THUMB.widthPx"
                          :height-px="THUMB.heightPx"
                          label=""
                        />
                        <span v-else class="grid shrink-0 place-items-center text-soft" :class="side === 1 ? 'h-[36px] w-16 rounded bg-sunk' : ''">
                          <component :is="action.icon" :size="16" :stroke-width="1.8" aria-hidden="true" />
                        </span>
                        <span class="min-w-0 flex-1">
                          <span dir="auto" class="block truncate" :title="action.label">{{ action.label }}</span>
                          <span v-if="action.detail" class="line-clamp-2 text-[12px] leading-snug text-soft" :title="action.detail">{{ action.detail }}</span>
                        </span>
                      </div>
                    </ComboboxOption>
                  </div>
                </div>
              </div>
            </ComboboxOptions>
          </Combobox>
        </PopoverPanel>
      </div>
    </Teleport>
  </Popover>
</template>
