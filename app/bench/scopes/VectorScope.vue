<script setup lang="ts">
// Colours about grey: hue as direction, strength as distance; where 75 % bars and skin should lie.
import { useTemplateRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { SKIN_ANGLE_DEG, vectorTargets, type CountGrid } from '../../../core/scopes/scopes.ts'
import { useCountCanvas } from './use-count-canvas.ts'

const props = defineProps<{ vectorscope: CountGrid | null }>()
const { t } = useI18n()
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
/** Full scale of ½ is 112 codes; the view is 256 codes wide. */
const CODES_PER_UNIT = 224
const CENTRE = 128
const place = (angleDeg: number, magnitude: number) => ({
  x: CENTRE + Math.cos((angleDeg * Math.PI) / 180) * magnitude * CODES_PER_UNIT,
  y: CENTRE - Math.sin((angleDeg * Math.PI) / 180) * magnitude * CODES_PER_UNIT,
})
const targets = vectorTargets().map((target) => ({ ...target, ...place(target.angleDeg, target.magnitude) }))
const skin = place(SKIN_ANGLE_DEG, 0.5)
// Each place in its own colour, so that a glance tells which way the picture leans.
useCountCanvas(
  canvas,
  () => props.vectorscope,
  (x, y) => {
    const cb = (x - CENTRE) / CODES_PER_UNIT
    const cr = (CENTRE - y) / CODES_PER_UNIT
    const light = 150
    return [light + 330 * cr, light - 60 * cb - 120 * cr, light + 390 * cb]
  },
)
</script>

<template>
  <figure class="relative h-[112px] overflow-hidden rounded-md bg-[#1c1c1c]" data-testid="vectorscope">
    <div class="absolute top-[22px] start-1/2 size-[86px] -translate-x-1/2">
      <svg viewBox="0 0 256 256" class="absolute inset-0 size-full" aria-hidden="true">
        <circle cx="128" cy="128" r="112" fill="none" stroke="#4a4a4a" stroke-width="2" />
        <path d="M16 128H240M128 16V240" stroke="#3a3a3a" stroke-width="1.5" />
        <line :x1="CENTRE" :y1="CENTRE" :x2="skin.x" :y2="skin.y" stroke="#d8a27c" stroke-width="2.5" stroke-dasharray="7 5" />
        <rect
          v-for="target in targets"
          :key="target.name"
          :x="target.x - 7"
          :y="target.y - 7"
          width="14"
          height="14"
          fill="none"
          stroke="#8a8a8a"
          stroke-width="2"
        />
      </svg>
      <canvas ref="canvas" class="absolute inset-0 size-full" width="256" height="256"></canvas>
    </div>
    <figcaption class="absolute top-1.5 start-2 text-[11.5px] text-[#c9c9c9]" :title="t('scopes.vectorHint')">{{ t('scopes.vectorscope') }}</figcaption>
  </figure>
</template>
