<script setup lang="ts">
import { useTemplateRef, watchEffect } from 'vue'

const props = defineProps<{ picture: ImageData | null; widthPx: number; heightPx: number }>()
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
watchEffect(() => {
  if (props.picture !== null) canvas.value?.getContext('2d')?.putImageData(props.picture, 0, 0)
})
</script>

<template>
  <canvas ref="canvas" :width="widthPx" :height="heightPx" class="block w-full rounded-[4px] bg-well"></canvas>
</template>
