<script setup lang="ts" generic="T extends string | number">
// One of a list. The list is our own, so that it looks and answers the same everywhere.
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/vue'
import { Check, ChevronDown } from 'lucide-vue-next'
import { computed, useTemplateRef } from 'vue'
import { useFloatingPanel } from './use-floating-panel.ts'

export interface SelectOption<Value> {
  readonly value: Value
  readonly label: string
  /** It cannot be chosen now; `detail` says why. */
  readonly isOff?: boolean
  readonly detail?: string
}

const props = defineProps<{ modelValue: T; label: string; options: readonly SelectOption<T>[]; disabled?: boolean }>()
const emit = defineEmits<{ 'update:modelValue': [value: T] }>()
const anchor = useTemplateRef<HTMLElement>('anchor')
const panel = useTemplateRef<HTMLElement>('panel')
const floatingStyles = useFloatingPanel(anchor, panel, () => 'bottom-start', true)
const chosen = computed(() => props.options.find((option) => option.value === props.modelValue)?.label ?? '')
</script>

<template>
  <Listbox v-slot="{ open }" :model-value="modelValue" :disabled="disabled" as="div" class="min-w-0" @update:model-value="emit('update:modelValue', $event)">
    <span ref="anchor" class="flex min-w-0">
      <ListboxButton
        :aria-label="`${label}: ${chosen}`"
        :title="`${label}: ${chosen}`"
        class="flex min-h-7 w-full min-w-0 items-center gap-1.5 rounded-md border border-line bg-raised py-1 pe-1.5 ps-2 text-start font-medium hover:border-soft disabled:opacity-45"
      >
        <span class="min-w-0 flex-1 truncate">{{ chosen }}</span>
        <ChevronDown :size="14" class="shrink-0 text-soft" aria-hidden="true" />
      </ListboxButton>
    </span>
    <Teleport to="body">
      <div ref="panel" :role="open ? 'region' : undefined" :aria-label="open ? label : undefined" class="z-50 flex" :style="floatingStyles">
        <ListboxOptions
          :aria-label="label"
          class="max-h-full w-full max-w-90 overflow-auto rounded-xl border border-line bg-raised p-1.5 shadow-[0_8px_28px_#0000002e] focus:outline-none"
        >
          <ListboxOption
            v-for="option in options"
            v-slot="{ active, selected }"
            :key="option.value"
            :value="option.value"
            :disabled="option.isOff"
            as="template"
          >
            <li
              class="flex min-h-7 items-center gap-2 rounded-lg px-2 py-1"
              :class="[active ? 'bg-wash' : '', option.isOff ? 'cursor-default text-soft' : 'cursor-pointer']"
            >
              <Check :size="14" class="shrink-0" :class="selected ? 'text-green' : 'invisible'" aria-hidden="true" />
              <span class="min-w-0">
                <span class="block">{{ option.label }}</span>
                <span v-if="option.detail" class="block text-[12px] leading-snug text-soft">{{ option.detail }}</span>
              </span>
            </li>
          </ListboxOption>
        </ListboxOptions>
      </div>
    </Teleport>
  </Listbox>
</template>
