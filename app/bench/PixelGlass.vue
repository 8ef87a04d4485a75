<script setup lang="ts">
// The pixels under the pointer, enlarged, with the one in the middle marked and named.
import { onMounted, ref, useTemplateRef, watch } from 'vue'
import { formatHex } from '../../core/colour/hex.ts'

const props = defineProps<{ x: number; y: number }>()
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
const hex = ref('')
const PIXELS = 13
const SCALE = 9

function draw(): void {
  const glass = canvas.value
  const picture = glass?.parentElement?.parentElement?.querySelector<HTMLCanvasElement>('.before-picture canvas')
  const pen = glass?.getContext('2d', { willReadFrequently: true })
  if (glass === null || picture === null || picture === undefined || pen === null || pen === undefined) return
  const half = (PIXELS - 1) / 2
  const left = Math.floor(props.x * picture.width) - half
  const top = Math.floor(props.y * picture.height) - half
  pen.imageSmoothingEnabled = false
  pen.clearRect(0, 0, glass.width, glass.height)
  pen.drawImage(picture, left, top, PIXELS, PIXELS, 0, 0, PIXELS * SCALE, PIXELS * SCALE)
  const [red, green, blue] = pen.getImageData(half * SCALE + 4, half * SCALE + 4, 1, 1).data as unknown as [number, number, number]
  hex.value = formatHex([red / 255, green / 255, blue / 255])
  pen.strokeStyle = '#ffffff'
  pen.lineWidth = 2
  pen.strokeRect(half * SCALE, half * SCALE, SCALE, SCALE)
}

onMounted(draw)
watch(() => [props.x, props.y], draw)
</script>

<template>
  <div
    class="pointer-events-none absolute z-10 overflow-hidden rounded-lg border-2 border-white bg-black shadow-[0_4px_16px_#0008]"
    :style="{
      left: `calc(${x * 100}% + ${x > 0.8 ? -140 : 20}px)`,
      top: `calc(${y * 100}% + ${y > 0.7 ? -160 : 20}px)`,
    }"
    data-testid="pixel-glass"
  >
    <canvas ref="canvas" class="block" :width="PIXELS * SCALE" :height="PIXELS * SCALE"></canvas>
    <div class="flex items-center gap-2 px-2 py-1 font-num text-[12px] text-white">
      <span class="size-3 rounded-sm border border-white/60" :style="{ background: hex }" aria-hidden="true"></span>{{ hex }}
    </div>
  </div>
</template>
