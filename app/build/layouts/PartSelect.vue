<script setup lang="ts" generic="T extends string | string[]">
// Who or what plays a part: a list in groups, of which one or several are chosen.
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/vue'
import { Check, ChevronDown } from 'lucide-vue-next'
import { useTemplateRef } from 'vue'
import { useFloatingPanel } from '../../base/use-floating-panel.ts'
import type { PartOption } from './use-cast.ts'

defineProps<{ modelValue: T; label: string; words: string; options: readonly PartOption[]; disabled?: boolean }>()
const emit = defineEmits<{ 'update:modelValue': [value: T] }>()
const anchor = useTemplateRef<HTMLElement>('anchor')
const panel = useTemplateRef<HTMLElement>('panel')
const floatingStyles = useFloatingPanel(anchor, panel, () => 'top-start', true)
</script>

<template>
  <Listbox
    v-slot="{ open }"
    :model-value="modelValue"
    :multiple="Array.isArray(modelValue)"
    :disabled="disabled"
    as="div"
    class="min-w-0"
    @update:model-value="emit('update:modelValue', $event)"
  >
    <span ref="anchor" class="flex min-w-0">
      <ListboxButton
        class="flex min-h-8 w-full min-w-0 items-center gap-1.5 rounded-md border border-line bg-paper py-1 pe-1.5 ps-2.5 text-start hover:border-soft disabled:opacity-45"
      >
        <span class="text-soft">{{ label }}&nbsp;</span>
        <span class="min-w-0 flex-1 truncate font-medium" :title="words">{{ words }}</span>
        <ChevronDown :size="14" class="shrink-0 text-soft" aria-hidden="true" />
      </ListboxButton>
    </span>
    <Teleport to="body">
      <div ref="panel" :role="open ? 'region' : undefined" :aria-label="open ? label : undefined" class="z-[60] flex" :style="floatingStyles">
        <ListboxOptions
          :aria-label="label"
          class="max-h-full w-full max-w-90 overflow-auto rounded-xl border border-line bg-raised p-1.5 shadow-[0_8px_28px_#0000002e] focus:outline-none"
        >
          <template v-for="(option, index) in options" :key="option.value">
            <li
              v-if="option.group && option.group !== options[index - 1]?.group"
              role="presentation"
              class="px-2 pt-2 pb-1 text-[12px] text-soft"
              :class="index > 0 ? 'mt-1 border-t border-line' : ''"
            >
              {{ option.group }}
            </li>
            <ListboxOption v-slot="{ active, selected }" :value="option.value" as="template">
              <li class="flex min-h-7 cursor-pointer items-center gap-2 rounded-lg px-2 py-1" :class="active ? 'bg-wash' : ''">
                <Check :size="14" class="shrink-0" :class="selected ? 'text-green' : 'invisible'" aria-hidden="true" />
                <span class="min-w-0 truncate">{{ option.label }}</span>
              </li>
            </ListboxOption>
          </template>
        </ListboxOptions>
      </div>
    </Teleport>
  </Listbox>
</template>
