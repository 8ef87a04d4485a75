<script setup lang="ts">
// A stored show that cannot be read: what is known of it, and what can be done.
import { Download, History, Trash2 } from 'lucide-vue-next'
import { useI18n } from 'vue-i18n'
import BaseButton from '../base/BaseButton.vue'
import { api, type ShowSummary } from '../show/api.ts'
import { timeOf } from './relative-time.ts'

defineProps<{ show: ShowSummary }>()
const emit = defineEmits<{ versions: []; delete: [] }>()
const { t, locale } = useI18n()

function save(id: string): void {
  const link = document.createElement('a')
  link.href = api.documentUrl(id)
  link.download = ''
  link.click()
}
</script>

<template>
  <div class="rounded-xl border border-dashed border-line px-5 py-4" data-testid="unreadable-show">
    <h2 dir="auto" class="truncate font-head text-[18px] font-bold" :title="show.name">{{ show.name }}</h2>
    <p class="mt-0.5 font-medium text-brass">{{ t('shows.unreadable') }}</p>
    <p class="mt-1 font-num text-[12px] break-words text-soft">{{ show.unreadable }}</p>
    <p class="mt-1 text-soft">{{ t('shows.changed', { when: timeOf(show.updatedAt, locale) }) }} · {{ t('shows.unreadableHint') }}</p>
    <div class="mt-3 flex flex-wrap gap-2">
      <BaseButton :icon="History" @click="emit('versions')">{{ t('shows.versions') }}</BaseButton>
      <BaseButton :icon="Download" @click="save(show.id)">{{ t('shows.export') }}</BaseButton>
      <BaseButton :icon="Trash2" @click="emit('delete')">{{ t('shows.delete') }}</BaseButton>
    </div>
  </div>
</template>
