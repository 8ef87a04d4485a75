<script setup lang="ts">
// One picture of a moving background, in the colours of the show.
import { onMounted, useTemplateRef, watch } from 'vue'
import { drawMoving, MOVING_SIZE, type MovingColours } from '../../core/backgrounds/moving.ts'
import type { MovingBackground } from '../../core/inputs/clip.ts'

const props = defineProps<{ name: MovingBackground; colours: MovingColours }>()
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
/** Where in the loop; at the very beginning some forms lie behind each other. */
const MOMENT = 0.3

function draw(): void {
  const pen = canvas.value?.getContext('2d')
  if (pen == null) return
  const { ground, panel, accent } = props.colours
  const rgb = drawMoving(props.name, { ground, panel, accent }, MOMENT)
  const image = pen.createImageData(MOVING_SIZE.widthPx, MOVING_SIZE.heightPx)
  for (let from = 0, to = 0; from < rgb.length; from += 3, to += 4) image.data.set([rgb[from]!, rgb[from + 1]!, rgb[from + 2]!, 255], to)
  pen.putImageData(image, 0, 0)
}

onMounted(draw)
watch(() => [props.name, props.colours], draw)
</script>

<template><canvas ref="canvas" :width="MOVING_SIZE.widthPx" :height="MOVING_SIZE.heightPx" aria-hidden="true"></canvas></template>
