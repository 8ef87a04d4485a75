<script setup lang="ts">
// A name that turns into a text field for editing.
import { nextTick, ref, useTemplateRef, watch } from 'vue'

const props = defineProps<{ modelValue: string; label: string; isEditing: boolean }>()
const emit = defineEmits<{ 'update:modelValue': [value: string]; done: [] }>()
const field = useTemplateRef<HTMLInputElement>('field')
const draft = ref('')

watch(
  () => props.isEditing,
  async (isEditing) => {
    if (!isEditing) return
    draft.value = props.modelValue
    await nextTick()
    field.value?.focus()
    field.value?.select()
  },
  { immediate: true },
)

function finish(keep: boolean): void {
  if (!props.isEditing) return
  const name = draft.value.trim()
  if (keep && name !== '' && name !== props.modelValue) emit('update:modelValue', name)
  emit('done')
}
</script>

<template>
  <input
    v-if="isEditing"
    ref="field"
    v-model="draft"
    type="text"
    dir="auto"
    maxlength="80"
    :aria-label="label"
    class="w-full min-w-0 rounded border border-brass bg-raised px-1 font-[inherit] text-ink"
    @keydown.enter.prevent="finish(true)"
    @keydown.escape.prevent.stop="finish(false)"
    @keydown.stop
    @blur="finish(true)"
    @click.stop
  />
  <span v-else dir="auto" class="block truncate" :title="modelValue">{{ modelValue }}</span>
</template>
