<script setup lang="ts">
// A button that opens a short list of things to do.
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { useTemplateRef, type Component } from 'vue'
import { useFloatingPanel } from './use-floating-panel.ts'

export interface MenuAction {
  readonly label: string
  readonly icon?: Component
  /** One more line: what it is for. */
  readonly detail?: string
  readonly disabled?: boolean
  /** Why it is disabled, in words. */
  readonly why?: string
  /** Starts a new group, with this heading. */
  readonly group?: string
  readonly run: () => void
}

const props = defineProps<{ actions: readonly MenuAction[]; label: string; align?: 'left' | 'right'; isIcon?: boolean; isWide?: boolean }>()
const anchor = useTemplateRef<HTMLElement>('anchor')
const panel = useTemplateRef<HTMLElement>('panel')
const floatingStyles = useFloatingPanel(anchor, panel, () => (props.align === 'right' ? 'bottom-end' : 'bottom-start'))
</script>

<template>
  <Menu v-slot="{ open }" as="div">
    <span ref="anchor" class="inline-flex max-w-full min-w-0">
      <MenuButton
        :aria-label="label"
        :data-tip="isIcon ? label : undefined"
        class="inline-flex max-w-full min-w-0 items-center gap-1.5 rounded-lg"
        :class="isIcon ? 'size-7 justify-center text-soft hover:bg-sunk hover:text-ink' : 'min-h-6'"
      >
        <slot />
      </MenuButton>
    </span>
    <Teleport to="body">
      <div ref="panel" :role="open ? 'region' : undefined" :aria-label="open ? label : undefined" class="z-50 flex" :style="floatingStyles">
        <MenuItems
          :aria-label="label"
          class="max-h-full overflow-auto rounded-xl border border-line bg-raised p-1.5 shadow-[0_8px_28px_#0000002e] focus:outline-none"
          :class="isWide ? 'w-80' : 'w-60'"
        >
          <template v-for="(action, index) in actions" :key="index">
            <p v-if="action.group" role="presentation" class="px-2.5 pt-2 pb-1 text-[12px] text-soft" :class="index > 0 ? 'mt-1 border-t border-line' : ''">
              {{ action.group }}
            </p>
            <MenuItem v-slot="{ active }" :disabled="action.disabled">
              <button
                type="button"
                class="flex w-full items-center gap-2.5 rounded-lg px-2.5 py-1.5 text-start disabled:text-soft disabled:opacity-70"
                :class="active ? 'bg-wash' : ''"
                :disabled="action.disabled"
                @click="action.run"
              >
                <component :is="action.icon" v-if="action.icon" :size="16" :stroke-width="1.8" class="shrink-0 text-soft" aria-hidden="true" />
                <span class="min-w-0 flex-1">
                  <span class="block truncate" :title="action.label">{{ action.label }}</span>
                  <span v-if="action.detail" class="block text-[12px] leading-snug text-soft">{{ action.detail }}</span>
                </span>
              </button>
            </MenuItem>
          </template>
        </MenuItems>
      </div>
    </Teleport>
  </Menu>
</template>
