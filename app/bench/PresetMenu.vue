<script setup lang="ts">
import { inputKindOf } from '../../core/inputs/index.ts'
import { ChevronDown, Copy, FileDown, FileUp, Layers, Save, Trash2 } from 'lucide-vue-next'
import { computed, ref, useTemplateRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import type { Input } from '../../core/show/show.ts'
import ActionMenu, { type MenuAction } from '../base/ActionMenu.vue'
import BaseButton from '../base/BaseButton.vue'
import IconButton from '../base/IconButton.vue'
import { useShowStore } from '../show/show.store.ts'
import { usePresets } from './use-presets.ts'

const props = defineProps<{ input: Input }>()
const { t } = useI18n()
const showStore = useShowStore()
const { presets, unreadable, load, save, remove, apply, exportFile, importFile, copyTo } = usePresets()
const chooser = useTemplateRef<HTMLInputElement>('chooser')
const isNaming = ref(false)
const name = ref('')
void load()

const others = computed(() => (showStore.show?.inputs ?? []).filter((other) => inputKindOf(other).hasPicture && other.id !== props.input.id))
const actions = computed<MenuAction[]>(() => [
  { label: t('presets.save'), icon: Save, run: startNaming },
  { label: t('presets.export'), icon: FileDown, run: () => exportFile(props.input.name) },
  { label: t('presets.import'), icon: FileUp, run: () => chooser.value?.click() },
  ...presets.value.map((preset, index) => ({
    label: preset.name,
    icon: Layers,
    ...(index === 0 ? { group: t('presets.apply') } : {}),
    run: () => apply(preset.chain.steps, preset.name),
  })),
  ...others.value.map((other, index) => ({
    label: other.name,
    icon: Copy,
    ...(index === 0 ? { group: t('presets.copyTo') } : {}),
    run: () => copyTo(other.id, other.name),
  })),
  ...[...presets.value, ...unreadable.value.map((each) => ({ ...each, name: t('presets.unreadable', { name: each.name }) }))].map((preset, index) => ({
    label: preset.name,
    icon: Trash2,
    ...(index === 0 ? { group: t('presets.delete') } : {}),
    run: () => void remove(preset),
  })),
])

function startNaming(): void {
  name.value = props.input.name
  isNaming.value = true
}

async function onSave(): Promise<void> {
  isNaming.value = false
  await save(name.value.trim())
}

function onFile(event: Event): void {
  const field = event.target as HTMLInputElement
  const file = field.files?.[0]
  field.value = ''
  if (file !== undefined) void importFile(file)
}
</script>

<template>
  <div class="relative flex items-center">
    <IconButton :icon="Save" size="small" :label="t('presets.save')" @click="startNaming" />
    <ActionMenu :actions="actions" :label="t('presets.title')" align="right">
      <span class="inline-flex items-center gap-1 rounded-lg px-2 py-1 font-medium text-soft hover:bg-sunk hover:text-ink">
        {{ t('presets.title') }} <ChevronDown :size="15" aria-hidden="true" />
      </span>
    </ActionMenu>
    <input ref="chooser" type="file" accept=".json,application/json" class="sr-only" :aria-label="t('presets.import')" tabindex="-1" @change="onFile" />
    <Dialog :open="isNaming" class="relative z-40" @close="isNaming = false">
      <div class="fixed inset-0 bg-black/40" aria-hidden="true"></div>
      <div class="fixed inset-0 grid place-items-center p-4">
        <DialogPanel as="form" class="w-90 rounded-xl border border-line bg-raised p-5" @submit.prevent="onSave">
          <DialogTitle class="font-head text-[17px] font-bold">{{ t('presets.save') }}</DialogTitle>
          <label class="mt-3 block">
            <span class="mb-1 block text-soft">{{ t('presets.name') }}</span>
            <input v-model="name" maxlength="80" required class="w-full rounded-md border border-line bg-paper px-2.5 py-1.5" />
          </label>
          <div class="mt-4 flex justify-end gap-2">
            <BaseButton @click="isNaming = false">{{ t('presets.cancel') }}</BaseButton>
            <button type="submit" class="rounded-lg bg-green px-3 py-1.5 font-medium text-on-green disabled:opacity-45" :disabled="name.trim() === ''">
              {{ t('presets.keep') }}
            </button>
          </div>
        </DialogPanel>
      </div>
    </Dialog>
  </div>
</template>
