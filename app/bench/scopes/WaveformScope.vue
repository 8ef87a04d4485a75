<script setup lang="ts">
// Luma from left to right as the picture has it, black at the bottom.
import { scaleLinear } from 'd3'
import { useTemplateRef } from 'vue'
import { useI18n } from 'vue-i18n'
import type { CountGrid } from '../../../core/scopes/scopes.ts'
import { useCountCanvas } from './use-count-canvas.ts'

const props = defineProps<{ waveform: CountGrid | null }>()
const { t } = useI18n()
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
const y = scaleLinear([0, 100], [100, 0])
useCountCanvas(
  canvas,
  () => props.waveform,
  () => [176, 224, 190],
)
</script>

<template>
  <figure class="relative h-[112px] overflow-hidden rounded-md bg-[#1c1c1c]" data-testid="waveform">
    <div class="absolute inset-x-2 top-6 bottom-2.5">
      <svg viewBox="0 0 100 100" preserveAspectRatio="none" class="absolute inset-0 size-full" aria-hidden="true">
        <line
          v-for="tick in y.ticks(4)"
          :key="tick"
          x1="0"
          x2="100"
          :y1="y(tick)"
          :y2="y(tick)"
          stroke="#4a4a4a"
          stroke-width="1"
          vector-effect="non-scaling-stroke"
        />
      </svg>
      <canvas ref="canvas" class="absolute inset-0 size-full" width="256" height="256"></canvas>
    </div>
    <figcaption class="absolute top-1.5 start-2 text-[11.5px] text-[#c9c9c9]">{{ t('scopes.waveform') }}</figcaption>
  </figure>
</template>
