<script setup lang="ts">
// Why the selected layer can't be seen, and one press that mends it.
import { EyeOff } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Layer } from '../../core/show/show.ts'
import BaseButton from '../base/BaseButton.vue'
import { useUnseen } from './use-unseen.ts'

const props = defineProps<{ layer: Layer }>()
const { t } = useI18n()
const { unseenOf } = useUnseen()
const found = computed(() => unseenOf(props.layer.id))
</script>

<template>
  <div v-if="found" class="mt-2 rounded-md bg-wash px-2.5 py-2 leading-snug" role="status" data-testid="unseen">
    <p class="flex gap-2">
      <EyeOff :size="15" class="mt-0.5 shrink-0 text-brass" aria-hidden="true" />
      <span
        ><b class="font-semibold">{{ t('unseen.title') }}.</b> {{ found.why }}</span
      >
    </p>
    <BaseButton v-if="found.cure" class="mt-1.5" @click="found.mend()">{{ found.cure }}</BaseButton>
  </div>
</template>
