<script setup lang="ts">
// Layers by name, the one in front first; a press chooses one.
import { EyeOff, Lock } from 'lucide-vue-next'
import { useI18n } from 'vue-i18n'
import type { Layer } from '../../core/show/show.ts'

defineProps<{ layers: readonly Layer[] }>()
const emit = defineEmits<{ choose: [layerId: string] }>()
const { t } = useI18n()
</script>

<template>
  <ul class="flex flex-col gap-0.5">
    <li v-for="layer in [...layers].reverse()" :key="layer.id" class="flex items-center gap-1">
      <button type="button" class="min-h-6 min-w-0 flex-1 truncate rounded px-1 text-start hover:bg-raised" @click="emit('choose', layer.id)">
        <bdi>{{ layer.name }}</bdi>
      </button>
      <EyeOff v-if="!layer.visible" :size="12" class="shrink-0 text-soft" :aria-label="t('layer.hidden')" />
      <Lock v-if="layer.locked" :size="12" class="shrink-0 text-soft" :aria-label="t('layer.locked')" />
    </li>
  </ul>
</template>
