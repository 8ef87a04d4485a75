<script setup lang="ts">
// A still of a scene; cameras are not opened for a list.
import { onBeforeUnmount, ref, toRaw, useTemplateRef, watch } from 'vue'
import type { Scene, Show } from '../../core/show/show.ts'
import { useEngineStore } from '../engine/engine.store.ts'

/** Null while they are not known yet. */
const props = defineProps<{ show: Show | null; scene: Scene | null; widthPx: number }>()
const engine = useEngineStore()
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
const isDrawn = ref(false)
let asked: AbortController | null = null

async function draw(): Promise<void> {
  asked?.abort()
  if (props.show === null || props.scene === null) return
  const mine = new AbortController()
  asked = mine
  const picture = await engine.calls().pictures.cover(toRaw(props.show), props.scene.id, props.widthPx, mine.signal)
  if (picture === null || mine.signal.aborted || canvas.value === null) return
  isDrawn.value = true
  canvas.value.width = picture.widthPx
  canvas.value.height = picture.heightPx
  canvas.value.getContext('2d')?.putImageData(new ImageData(picture.data as Uint8ClampedArray<ArrayBuffer>, picture.widthPx, picture.heightPx), 0, 0)
}

// An engine that was started anew has forgotten what it was asked.
watch([() => props.show, () => props.scene, () => engine.generation], () => void draw(), { immediate: true, flush: 'post' })
onBeforeUnmount(() => asked?.abort())
</script>

<template>
  <canvas ref="canvas" :class="isDrawn ? '' : 'bg-well'" class="block aspect-video w-full object-contain" aria-hidden="true"></canvas>
</template>
