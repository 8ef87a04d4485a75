<script setup lang="ts">
// A button that opens a short list of things to do.
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import type { Component } from 'vue'

export interface MenuAction {
  readonly label: string
  readonly icon?: Component
  readonly disabled?: boolean
  /** Starts a new group, with this heading. */
  readonly group?: string
  readonly run: () => void
}

defineProps<{ actions: readonly MenuAction[]; label: string; align?: 'left' | 'right'; isIcon?: boolean }>()
</script>

<template>
  <Menu as="div" class="relative">
    <MenuButton
      :aria-label="label"
      :title="isIcon ? label : undefined"
      class="inline-flex items-center gap-1.5 rounded-lg"
      :class="isIcon ? 'size-8 justify-center text-soft hover:bg-sunk hover:text-ink' : ''"
    >
      <slot />
    </MenuButton>
    <MenuItems
      class="absolute z-30 mt-1 max-h-[70vh] w-60 overflow-auto rounded-xl border border-line bg-raised p-1.5 shadow-[0_8px_28px_#0000002e] focus:outline-none"
      :class="align === 'right' ? 'right-0' : 'left-0'"
    >
      <template v-for="(action, index) in actions" :key="index">
        <p v-if="action.group" class="px-2.5 pt-2 pb-1 text-[12px] text-soft" :class="index > 0 ? 'mt-1 border-t border-line' : ''">{{ action.group }}</p>
        <MenuItem v-slot="{ active }" :disabled="action.disabled">
          <button
            type="button"
            class="flex w-full items-center gap-2.5 rounded-lg px-2.5 py-1.5 text-left disabled:opacity-45"
            :class="active ? 'bg-wash' : ''"
            :disabled="action.disabled"
            @click="action.run"
          >
            <component :is="action.icon" v-if="action.icon" :size="16" :stroke-width="1.8" class="shrink-0 text-soft" aria-hidden="true" />
            <span class="truncate">{{ action.label }}</span>
          </button>
        </MenuItem>
      </template>
    </MenuItems>
  </Menu>
</template>
