<script setup lang="ts">
// Red, green, blue and luma counts per code.
import { area, curveStepAfter, scaleLinear, scaleSqrt, type Area } from 'd3'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Histogram } from '../../../core/scopes/scopes.ts'

const props = defineProps<{ histogram: Histogram | null }>()
const { t } = useI18n()
const WIDTH = 256
const HEIGHT = 100
const channels = [
  { name: 'red', fill: 'rgba(235,82,72,0.55)' },
  { name: 'green', fill: 'rgba(72,186,98,0.5)' },
  { name: 'blue', fill: 'rgba(84,136,242,0.55)' },
] as const
const x = scaleLinear([0, 255], [0, WIDTH])

/** The ends hold whatever is clipped and would flatten the rest. */
const top = computed(() => {
  const { histogram } = props
  if (histogram === null) return 1
  return Math.max(
    1,
    ...[histogram.red, histogram.green, histogram.blue].map((counts) => counts.slice(2, 254).reduce((most, count) => Math.max(most, count), 0)),
  )
})
const shape = computed<Area<number>>(() => {
  const y = scaleSqrt([0, top.value], [HEIGHT, 4]).clamp(true)
  return area<number>()
    .curve(curveStepAfter)
    .x((_, code) => x(code))
    .y0(HEIGHT)
    .y1((count) => y(count))
})
const pathOf = (counts: Uint32Array) => shape.value(counts as unknown as number[]) ?? ''
const lumaLine = computed(() => (props.histogram === null ? '' : pathOf(props.histogram.luma)))
</script>

<template>
  <figure class="relative h-[112px] overflow-hidden rounded-md bg-[#1c1c1c]" data-testid="histogram">
    <svg
      :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
      preserveAspectRatio="none"
      class="absolute inset-x-2 top-7 bottom-2 h-[78px] w-[calc(100%-16px)]"
      aria-hidden="true"
    >
      <line
        v-for="quarter in [0.25, 0.5, 0.75]"
        :key="quarter"
        :x1="WIDTH * quarter"
        :x2="WIDTH * quarter"
        y1="0"
        :y2="HEIGHT"
        stroke="#3a3a3a"
        stroke-width="0.6"
      />
      <template v-if="histogram">
        <path v-for="channel in channels" :key="channel.name" :d="pathOf(histogram[channel.name])" :fill="channel.fill" style="mix-blend-mode: screen" />
        <path :d="lumaLine" fill="none" stroke="#d8d8d8" stroke-width="0.8" vector-effect="non-scaling-stroke" />
      </template>
    </svg>
    <figcaption class="absolute top-1.5 start-2 text-[11.5px] text-[#c9c9c9]">{{ t('scopes.histogram') }}</figcaption>
  </figure>
</template>
