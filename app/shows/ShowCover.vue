<script setup lang="ts">
// A still of a show's first scene, drawn from its parts; cameras are not opened for a list.
import { computed } from 'vue'
import type { Layer, Show } from '../../core/show/show.ts'

const props = defineProps<{ show: Show }>()
const scene = computed(() => props.show.scenes[0])
const viewBox = computed(() => `0 0 ${props.show.canvas.widthPx} ${props.show.canvas.heightPx}`)

function inputOf(layer: Layer) {
  return layer.kind === 'input' ? props.show.inputs.find((input) => input.id === layer.inputId) : undefined
}

function assetUrl(layer: Layer): string | null {
  const input = inputOf(layer)
  return input?.kind === 'picture' ? `/api/assets/${input.asset}` : null
}

function colourOf(layer: Layer): string | null {
  const input = inputOf(layer)
  return input?.kind === 'colour' ? input.colour : null
}

const slice = { fit: 'xMidYMid meet', fill: 'xMidYMid slice', stretch: 'none' } as const
</script>

<template>
  <svg :viewBox="viewBox" class="block aspect-video w-full bg-well" aria-hidden="true">
    <g v-for="layer in scene?.layers" :key="layer.id" :opacity="layer.visible ? layer.opacity : 0">
      <image
        v-if="assetUrl(layer)"
        :href="assetUrl(layer)!"
        :x="layer.placement.x"
        :y="layer.placement.y"
        :width="layer.placement.width"
        :height="layer.placement.height"
        :preserveAspectRatio="slice[layer.placement.fit]"
      />
      <rect
        v-else-if="colourOf(layer)"
        :x="layer.placement.x"
        :y="layer.placement.y"
        :width="layer.placement.width"
        :height="layer.placement.height"
        :fill="colourOf(layer)!"
      />
      <g v-else-if="layer.kind === 'text'" :transform="`translate(${layer.placement.x} ${layer.placement.y})`">
        <rect v-if="layer.text.plate" :width="layer.placement.width" :height="layer.placement.height" :fill="layer.text.plate.colour" />
        <text
          v-for="(block, index) in layer.text.blocks"
          :key="index"
          :x="layer.text.align === 'centre' ? layer.placement.width / 2 : 36"
          :y="layer.placement.height / 2 + (index - (layer.text.blocks.length - 1) / 2) * block.sizePx * 1.3 + block.sizePx * 0.35"
          :font-size="block.sizePx"
          :font-weight="block.weight"
          :fill="block.colour"
          :text-anchor="layer.text.align === 'centre' ? 'middle' : 'start'"
          font-family="'Bricolage Grotesque Variable'"
        >
          {{ block.text }}
        </text>
      </g>
      <g v-else :transform="`translate(${layer.placement.x} ${layer.placement.y}) scale(${layer.placement.width / 1280} ${layer.placement.height / 720})`">
        <!-- A person, where a camera will be. -->
        <path d="M300 720c10-120 60-160 250-190v-70h180v70c190 30 240 70 250 190z" fill="#1d2a26" opacity="0.34" />
        <ellipse cx="640" cy="310" rx="130" ry="165" fill="#1d2a26" opacity="0.34" />
      </g>
    </g>
  </svg>
</template>
