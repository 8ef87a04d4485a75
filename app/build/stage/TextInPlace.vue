<script setup lang="ts">
// The words of a text, written where they are seen. Each line has a field of its own; Escape or a press elsewhere ends it.
import { textOf } from '../../../core/layers/text.ts'
import { onClickOutside } from '@vueuse/core'
import { computed, onMounted, useTemplateRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { LIMITS } from '../../../core/schema/limits.ts'
import type { Placement, TextLayer } from '../../../core/show/show.ts'
import { inStyle } from '../../../core/show/style.ts'
import { useShowStore } from '../../show/show.store.ts'
import { useTextEdit } from '../use-text-edit.ts'

/** `placement`: where the layer lies on the canvas. */
const props = defineProps<{ layer: TextLayer; placement: Placement; zoom: number }>()
const emit = defineEmits<{ done: [] }>()
const { t } = useI18n()
const showStore = useShowStore()
const root = useTemplateRef<HTMLElement>('root')
const { changeBlock } = useTextEdit(() => props.layer)
const text = computed(() => inStyle(showStore.show!.style, textOf(showStore.show!, props.layer)))
const boxStyle = computed(() => {
  const { x, y, width, height, angleDeg } = props.placement
  const { zoom } = props
  return { left: `${x * zoom}px`, top: `${y * zoom}px`, width: `${width * zoom}px`, minHeight: `${height * zoom}px`, transform: `rotate(${angleDeg}deg)` }
})
onClickOutside(root, () => emit('done'))

onMounted(() => {
  const field = root.value?.querySelector('textarea')
  field?.focus()
  field?.select()
})
</script>

<template>
  <div
    ref="root"
    class="absolute z-20 flex flex-col justify-center gap-1 rounded-[3px] bg-[#101413f2] outline-2 outline-[#e2b24c]"
    :style="{ ...boxStyle, padding: `${(text.plate?.paddingPx ?? 4) * zoom}px` }"
    data-over-stage
    role="group"
    :aria-label="t('inspector.text')"
    @keydown.stop
    @keydown.escape="emit('done')"
    @mousedown.stop
  >
    <textarea
      v-for="(block, index) in text.blocks"
      :key="index"
      :value="block.text"
      :aria-label="t('inspector.line', { n: index + 1 })"
      :maxlength="LIMITS.textLength"
      :rows="block.text.split('\n').length"
      class="block w-full resize-none overflow-hidden border-0 bg-transparent p-0 text-white outline-none selection:bg-[#e2b24c] selection:text-black"
      :style="{
        fontFamily: `'${text.family} Variable', '${text.family}', var(--font-other)`,
        fontSize: `${Math.max(9, block.sizePx * zoom)}px`,
        fontWeight: block.weight,
        lineHeight: text.lineHeight,
        textAlign: text.align === 'centre' ? 'center' : text.align,
      }"
      @input="changeBlock(index, { text: ($event.target as HTMLTextAreaElement).value })"
    ></textarea>
  </div>
</template>
