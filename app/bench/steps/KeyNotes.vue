<script setup lang="ts">
// Notes of the key search: sides without cloth, or nobody left in the picture.
import { Crop, Undo2 } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { ClothEnds } from '../../../core/solve/cloth-ends.ts'
import BaseButton from '../../base/BaseButton.vue'

const props = defineProps<{ ends: ClothEnds | null; isNobodyLeft: boolean }>()
const emit = defineEmits<{ crop: []; undo: [] }>()
const { t } = useI18n()

/** "6 % left, 9 % right": the sides that need it. */
const sides = computed(() => {
  const { ends } = props
  if (ends === null) return ''
  return (['left', 'right'] as const).flatMap((side) => (ends[side] > 0 ? [t(`key.ends.${side}`, { percent: ends[side] })] : [])).join(', ')
})
</script>

<template>
  <div v-if="isNobodyLeft" class="flex flex-wrap items-center gap-2 rounded-lg bg-wash px-2.5 py-1.5" role="alert">
    <p class="min-w-32 flex-1 leading-snug">{{ t('key.nobodyLeftAfter') }}</p>
    <BaseButton :icon="Undo2" @click="emit('undo')">{{ t('header.undoShort') }}</BaseButton>
  </div>
  <div v-if="sides !== ''" class="flex flex-wrap items-center gap-2 rounded-lg bg-wash px-2.5 py-1.5" role="status" data-testid="cloth-ends">
    <p class="min-w-32 flex-1 leading-snug">{{ t('key.clothEnds', { sides }) }}</p>
    <BaseButton :icon="Crop" @click="emit('crop')">{{ t('key.cropEnds') }}</BaseButton>
  </div>
</template>
