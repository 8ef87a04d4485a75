<script setup lang="ts">
// A still of a scene, drawn from its parts; cameras are not opened for a list.
import { computed } from 'vue'
import type { Scene, Show } from '../../core/show/show.ts'
import CoverLayers from './CoverLayers.vue'

const props = defineProps<{ show: Show; scene: Scene }>()
const viewBox = computed(() => `0 0 ${props.show.canvas.widthPx} ${props.show.canvas.heightPx}`)
/** A cover is small: what lies deeper is left out. */
const DEPTH = 2
</script>

<template>
  <svg :viewBox="viewBox" class="block aspect-video w-full bg-well" aria-hidden="true">
    <CoverLayers :show="show" :layers="scene.layers" :depth="DEPTH" />
  </svg>
</template>
