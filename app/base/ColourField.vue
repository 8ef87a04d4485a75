<script setup lang="ts">
// A swatch that opens the system's colour chooser, and the code beside it.
import { computed, ref } from 'vue'
import { i18n } from '../i18n.ts'
import { Palette } from 'lucide-vue-next'
import ActionMenu from './ActionMenu.vue'
import { useColourMeaning, useNamedColours } from './colour-meaning.ts'

const props = defineProps<{
  modelValue: string
  label: string
  disabled?: boolean
  /** Whether it may be one of the named colours, and follow it. */
  canName?: boolean
}>()
const emit = defineEmits<{ 'update:modelValue': [value: string] }>()
const draft = ref<string | null>(null)
const meaning = useColourMeaning()
const names = useNamedColours()
const actions = computed(() => (names?.value ?? []).map(({ value, label }) => ({ label, run: () => emit('update:modelValue', value) })))
/** The colour as it looks: one that is named takes what it stands for. */
const shown = computed(() => meaning(props.modelValue))

function commit(): void {
  const text = draft.value?.trim() ?? ''
  draft.value = null
  const code = text.startsWith('#') ? text : `#${text}`
  if (/^#[0-9a-f]{6}$/i.test(code) && code.toLowerCase() !== shown.value) emit('update:modelValue', code.toLowerCase())
}
</script>

<template>
  <span class="inline-flex items-center gap-2">
    <input
      type="color"
      :value="shown"
      :aria-label="label"
      :disabled="disabled"
      class="swatch h-6 w-7 shrink-0 cursor-pointer rounded border border-line"
      @input="emit('update:modelValue', ($event.target as HTMLInputElement).value)"
    />
    <input
      type="text"
      :value="draft ?? shown"
      :aria-label="i18n.global.t('inspector.colourCode', { name: label })"
      :disabled="disabled"
      maxlength="7"
      spellcheck="false"
      class="min-h-6 w-17 rounded @max-[230px]:hidden border border-transparent bg-transparent px-1 font-num text-[12px] hover:border-line"
      :data-undo="draft === null || draft === shown ? 'show' : undefined"
      @focus="draft = shown"
      @input="draft = ($event.target as HTMLInputElement).value"
      @blur="commit"
      @keydown.enter="commit"
    />
    <ActionMenu
      v-if="canName && actions.length > 0 && !disabled"
      :actions="actions"
      :label="i18n.global.t('inspector.namedColour', { name: label })"
      align="right"
      is-icon
    >
      <Palette :size="14" :class="modelValue.startsWith('#') ? 'text-soft' : 'text-brass'" aria-hidden="true" />
    </ActionMenu>
  </span>
</template>

<style scoped>
.swatch {
  appearance: none;
  padding: 0;
  overflow: hidden;
}
.swatch::-webkit-color-swatch-wrapper {
  padding: 0;
}
.swatch::-webkit-color-swatch {
  border: 0;
}
</style>
