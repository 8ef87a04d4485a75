<script setup lang="ts">
// Says what a control without words is, at once, when the pointer or the focus comes to it: one line for every element with `data-tip`.
import { autoUpdate, flip, offset, shift, useFloating } from '@floating-ui/vue'
import { useEventListener } from '@vueuse/core'
import { shallowRef, useTemplateRef } from 'vue'

const target = shallowRef<HTMLElement | null>(null)
const words = shallowRef('')
const tip = useTemplateRef<HTMLElement>('tip')
const { floatingStyles } = useFloating(target, tip, {
  placement: 'bottom',
  strategy: 'fixed',
  transform: false,
  whileElementsMounted: autoUpdate,
  middleware: [offset(6), flip({ padding: 6 }), shift({ padding: 6 })],
})

function show(from: EventTarget | null): void {
  const found = from instanceof Element ? from.closest<HTMLElement>('[data-tip]') : null
  target.value = found
  words.value = found?.dataset['tip'] ?? ''
}
function hide(): void {
  target.value = null
}

useEventListener(document, 'pointerover', (event: PointerEvent) => {
  // A finger presses what it touches; and the pointer may rest on the words themselves (WCAG 1.4.13).
  if (event.pointerType !== 'touch' && !(event.target instanceof Node && tip.value?.contains(event.target) === true)) show(event.target)
})
useEventListener(document, 'focusin', (event: FocusEvent) => {
  if (event.target instanceof Element && event.target.matches(':focus-visible')) show(event.target)
})
useEventListener(document, ['focusout', 'pointerdown', 'pointerleave'], hide)
useEventListener(document, 'keydown', (event: KeyboardEvent) => {
  if (event.key === 'Escape') hide()
})
useEventListener(window, ['blur', 'scroll'], hide, { capture: true })
</script>

<template>
  <Teleport to="body">
    <div
      v-if="target && words"
      ref="tip"
      class="z-[60] max-w-72 rounded-md bg-ink px-2 py-1 text-[12px] leading-snug text-paper"
      :style="floatingStyles"
      aria-hidden="true"
      data-testid="tip"
    >
      {{ words }}
    </div>
  </Teleport>
</template>
