<script setup lang="ts">
import { Check, CloudOff, Copy, LoaderCircle, TriangleAlert } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { useShowStore } from '../show/show.store.ts'

const { t } = useI18n()
const showStore = useShowStore()
const icons = { saved: Check, saving: LoaderCircle, offline: CloudOff, unkept: TriangleAlert, filing: Copy, refused: TriangleAlert } as const
const help = computed(() => {
  const state = showStore.saveState
  return t(`save.help.${state.kind}`, state.kind === 'refused' ? { why: state.why } : {})
})
const isTrouble = computed(() => !['saved', 'saving'].includes(showStore.saveState.kind))
</script>

<template>
  <span role="status" class="flex items-center gap-1" :class="isTrouble ? 'min-w-0 font-medium text-brass' : 'shrink-0 text-soft'" :data-tip="help">
    <component :is="icons[showStore.saveState.kind]" :size="14" aria-hidden="true" class="shrink-0" />
    <span class="truncate" :class="isTrouble ? '' : 'sr-only'">{{ t(`save.${showStore.saveState.kind}`) }}</span>
  </span>
</template>
