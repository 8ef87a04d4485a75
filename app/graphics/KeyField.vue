<script setup lang="ts">
// The key that shows and hides a graphic: pressed to be set.
import { Pencil, X } from 'lucide-vue-next'
import { ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { graphicsOf } from '../../core/show/edits.ts'
import IconButton from '../base/IconButton.vue'
import { areSameKey, bindingOf, keyWords } from '../commands/keys.ts'
import { useKeysStore } from '../commands/keys.store.ts'
import { useShowStore } from '../show/show.store.ts'

/** `of`: the graphic that the key is for. */
const props = defineProps<{ modelValue: string | null; of: string }>()
const emit = defineEmits<{ 'update:modelValue': [key: string | null] }>()
const { t } = useI18n()
const keys = useKeysStore()
const showStore = useShowStore()
const isWaiting = ref(false)
const refusal = ref<string | null>(null)

function wait(): void {
  refusal.value = null
  isWaiting.value = !isWaiting.value
}

function stop(): void {
  isWaiting.value = false
  refusal.value = null
}

function onKey(event: KeyboardEvent): void {
  if (!isWaiting.value || event.key === 'Tab') return
  event.preventDefault()
  event.stopPropagation()
  if (event.key === 'Escape') return stop()
  const binding = bindingOf(event)
  if (binding === null) return
  refusal.value = refusalOf(binding)
  if (refusal.value !== null) return
  emit('update:modelValue', binding)
  stop()
}

/** Why a key cannot be had, in words; null when it can. */
function refusalOf(binding: string): string | null {
  const key = keyWords(binding)
  const refused = keys.refusalOf(binding)
  if (refused !== null)
    return refused.type === 'page' ? t('commands.belongsToPage', { key }) : t('commands.taken', { key, name: t(`commands.does.${refused.by}`) })
  const other = graphicsOf(showStore.show!).find(({ id, graphic }) => id !== props.of && graphic!.key !== null && areSameKey(graphic!.key, binding))
  return other === undefined ? null : t('commands.taken', { key, name: other.name })
}
</script>

<template>
  <div>
    <div class="flex items-center justify-between gap-1">
      <span>{{ t('graphics.key') }}</span>
      <span class="flex items-center">
        <span class="me-1 font-num text-[12px] text-soft">{{ modelValue === null ? t('commands.noKey') : keyWords(modelValue) }}</span>
        <IconButton v-if="modelValue !== null" :icon="X" size="small" :label="t('graphics.noKey')" @click="emit('update:modelValue', null)" />
        <IconButton
          :icon="Pencil"
          size="small"
          :label="t('graphics.changeKey')"
          :is-on="isWaiting"
          data-testid="graphic-key"
          @click="wait"
          @keydown="onKey"
          @blur="stop"
        />
      </span>
    </div>
    <p v-if="isWaiting" class="text-[12px] leading-snug" :class="refusal ? 'text-tally' : 'text-soft'" role="status">{{ refusal ?? t('commands.press') }}</p>
  </div>
</template>
