<script setup lang="ts">
// Finds a command, a scene, a layer or an input by typing, and says its key, or why it cannot run.
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions, Dialog, DialogPanel } from '@headlessui/vue'
import { Search } from 'lucide-vue-next'
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useKeysStore } from './keys.store.ts'
import { found, type PaletteItem } from './find.ts'
import { usePaletteItems } from './use-palette-items.ts'

const { t } = useI18n()
const keys = useKeysStore()
const typed = ref('')
const { items } = usePaletteItems()
const fitting = computed(() => (keys.isPaletteShown ? found(items.value, typed.value) : []))
/** Why what was chosen cannot run. */
const refusal = ref<string | null>(null)

watch(
  () => keys.isPaletteShown,
  () => {
    typed.value = ''
    refusal.value = null
  },
)

function choose(item: PaletteItem | null): void {
  if (item === null) return
  if (item.whyNot !== null) {
    refusal.value = `${item.title}. ${t('commands.cannot', { why: item.whyNot })}`
    return
  }
  keys.isPaletteShown = false
  item.run()
}
</script>

<template>
  <Dialog :open="keys.isPaletteShown" class="relative z-50" :aria-label="t('commands.title')" @close="keys.isPaletteShown = false">
    <div class="fixed inset-0 bg-black/40" aria-hidden="true"></div>
    <div class="fixed inset-0 flex justify-center p-4 pt-[9vh]">
      <DialogPanel
        class="flex h-fit max-h-[min(560px,80vh)] w-[min(620px,100%)] flex-col overflow-hidden rounded-2xl border border-line bg-raised shadow-xl"
        @keydown.escape.capture.stop.prevent="keys.isPaletteShown = false"
      >
        <Combobox nullable :model-value="null" @update:model-value="choose">
          <div class="flex items-center gap-2.5 border-b border-line px-4">
            <Search :size="17" class="shrink-0 text-soft" aria-hidden="true" />
            <ComboboxInput
              class="h-12 min-w-0 flex-1 bg-transparent text-[15px] outline-none placeholder:text-soft"
              :placeholder="t('commands.hint')"
              :aria-label="t('commands.title')"
              @change="typed = $event.target.value"
            />
          </div>
          <p v-if="refusal" class="border-b border-line bg-wash px-4 py-2" role="status">{{ refusal }}</p>
          <p v-if="fitting.length === 0" class="px-4 py-6 text-center text-soft" role="status">{{ t('commands.none') }}</p>
          <ComboboxOptions static class="min-h-0 flex-1 overflow-y-auto p-1.5" :aria-label="t('commands.title')">
            <ComboboxOption v-for="item in fitting" :key="item.id" v-slot="{ active }" :value="item" as="template">
              <li class="flex min-h-8 cursor-pointer items-center gap-3 rounded-lg px-2.5 py-1" :class="active ? 'bg-wash' : ''">
                <component :is="item.icon" v-if="item.icon" :size="15" :stroke-width="1.8" class="shrink-0 text-soft" aria-hidden="true" />
                <span v-else class="size-[15px] shrink-0" aria-hidden="true"></span>
                <span class="min-w-0 flex-1">
                  <span dir="auto" class="block truncate" :class="item.whyNot === null ? '' : 'text-soft'">{{ item.title }}</span>
                  <span v-if="item.whyNot !== null" class="block truncate text-[11.5px] text-soft">{{ t('commands.cannot', { why: item.whyNot }) }}</span>
                </span>
                <span class="shrink-0 text-[11.5px] text-soft">{{ item.group }}</span>
                <kbd v-if="item.key" class="shrink-0 rounded border border-line bg-sunk px-1.5 font-num text-[11px] leading-5">{{ item.key }}</kbd>
              </li>
            </ComboboxOption>
          </ComboboxOptions>
        </Combobox>
      </DialogPanel>
    </div>
  </Dialog>
</template>
