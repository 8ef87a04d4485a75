<script setup lang="ts">
// A list of things to do at a place on the screen. Arrow keys go through it, Escape and a press elsewhere close it.
import { flip, shift, useFloating, type VirtualElement } from '@floating-ui/vue'
import { onClickOutside } from '@vueuse/core'
import { computed, nextTick, useTemplateRef, watch } from 'vue'
import type { MenuAction } from './ActionMenu.vue'

const props = defineProps<{ actions: readonly MenuAction[]; label: string; at: { readonly x: number; readonly y: number } | null }>()
const emit = defineEmits<{ close: [] }>()
const panel = useTemplateRef<HTMLElement>('panel')
const anchor = computed<VirtualElement | null>(() => {
  const { at } = props
  return at === null ? null : { getBoundingClientRect: () => new DOMRect(at.x, at.y, 0, 0) }
})
const { floatingStyles } = useFloating(anchor, panel, {
  placement: 'bottom-start',
  strategy: 'fixed',
  transform: false,
  middleware: [flip({ padding: 8 }), shift({ padding: 8 })],
})
onClickOutside(panel, () => emit('close'))
let before: HTMLElement | null = null

const items = () => [...(panel.value?.querySelectorAll<HTMLElement>('[role="menuitem"]:not(:disabled)') ?? [])]

function run(action: MenuAction): void {
  close()
  action.run()
}

function close(): void {
  emit('close')
  before?.focus()
}

function onKey(event: KeyboardEvent): void {
  const all = items()
  const index = all.indexOf(document.activeElement as HTMLElement)
  const next: Readonly<Record<string, number>> = { ArrowDown: index + 1, ArrowUp: index - 1, Home: 0, End: all.length - 1 }
  const to = next[event.key]
  if (event.key === 'Escape' || event.key === 'Tab') close()
  else if (to !== undefined) all[(to + all.length) % all.length]?.focus()
  else return
  event.preventDefault()
  event.stopPropagation()
}

watch(
  () => props.at,
  async (at, was) => {
    if (at === null) return
    if (was === null) before = document.activeElement as HTMLElement | null
    await nextTick()
    items()[0]?.focus({ preventScroll: true })
  },
)
</script>

<template>
  <Teleport to="body">
    <div v-if="at" role="region" :aria-label="label">
      <div
        ref="panel"
        role="menu"
        :aria-label="label"
        class="z-50 max-h-[calc(100vh-16px)] w-72 overflow-auto rounded-xl border border-line bg-raised p-1.5 shadow-[0_8px_28px_#0000002e]"
        :style="floatingStyles"
        @keydown="onKey"
        @contextmenu.prevent
      >
        <template v-for="(action, index) in actions" :key="index">
          <p v-if="action.group" role="presentation" class="px-2.5 pt-2 pb-1 text-[12px] text-soft" :class="index > 0 ? 'mt-1 border-t border-line' : ''">
            {{ action.group }}
          </p>
          <button
            type="button"
            role="menuitem"
            class="flex w-full items-center gap-2.5 rounded-lg px-2.5 py-1 text-start outline-none focus:bg-wash enabled:hover:bg-wash disabled:text-soft disabled:opacity-70"
            :disabled="action.disabled"
            @click="run(action)"
          >
            <component :is="action.icon" v-if="action.icon" :size="15" :stroke-width="1.8" class="shrink-0 text-soft" aria-hidden="true" />
            <span class="min-w-0 flex-1">
              <span class="block truncate" :title="action.label">{{ action.label }}</span>
              <span v-if="action.detail" class="block text-[12px] leading-snug text-soft">{{ action.detail }}</span>
            </span>
          </button>
        </template>
      </div>
    </div>
  </Teleport>
</template>
