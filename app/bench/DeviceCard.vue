<script setup lang="ts">
// The camera itself, first in the chain: which device, what it is doing, its own controls.
import { isFailure } from '../../engine/live/live-state.ts'
import { ChevronRight } from 'lucide-vue-next'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { CameraInput } from '../../core/show/show.ts'
import { useInputsStore } from '../inputs/inputs.store.ts'
import CameraDevice from '../kinds/inputs/camera/CameraDevice.vue'
import OwnControls from './OwnControls.vue'

const props = defineProps<{ input: CameraInput }>()
const { t } = useI18n()
const inputs = useInputsStore()
const isOpenByHand = ref<boolean | null>(null)
const state = computed(() => inputs.statusOf(props.input.id))
/** A camera in trouble opens by itself. */
const isOpen = computed(() => isOpenByHand.value ?? isFailure(state.value))
const heldCount = computed(() => (props.input.device.type === 'device' ? Object.keys(props.input.device.controls ?? {}).length : 0))
const summary = computed(() => {
  if (state.value !== 'live') return t(`camera.states.${state.value}`)
  return heldCount.value > 0 ? t('ownControls.held', { count: heldCount.value }) : `${props.input.widthPx}×${props.input.heightPx}`
})
</script>

<template>
  <section class="mb-2 rounded-lg border bg-raised px-2.5 py-2" :class="isOpen ? 'border-brass' : 'border-line'" data-testid="device-card">
    <h3>
      <button type="button" class="flex min-h-6 w-full items-center gap-2 text-start" :aria-expanded="isOpen" @click="isOpenByHand = !isOpen">
        <ChevronRight :size="14" class="shrink-0 text-soft transition-transform duration-150" :class="isOpen ? 'rotate-90' : ''" aria-hidden="true" />
        <span class="font-semibold">{{ t('bench.device') }}</span>
        <span class="ms-auto truncate font-num text-[11.5px] text-soft tabular-nums">{{ summary }}</span>
      </button>
    </h3>
    <div v-if="isOpen" class="mt-2">
      <CameraDevice :input="input" />
      <OwnControls :input="input" />
    </div>
  </section>
</template>
