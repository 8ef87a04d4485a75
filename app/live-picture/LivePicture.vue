<script setup lang="ts">
// A canvas that the engine draws into. The element lives and dies with its view.
import { onBeforeUnmount, onMounted, useTemplateRef, watch } from 'vue'
import type { ViewRequest } from '../../engine/protocol.ts'
import { useEngineStore } from '../engine/engine.store.ts'

const props = defineProps<{
  request: ViewRequest
  widthPx: number
  heightPx: number
  /** What it shows; empty where the words beside it say so. */
  label: string
}>()
const engine = useEngineStore()
const holder = useTemplateRef<HTMLDivElement>('holder')
let viewId: string | null = null

function open(): void {
  const canvas = document.createElement('canvas')
  canvas.width = props.widthPx
  canvas.height = props.heightPx
  canvas.className = 'block w-full h-full'
  canvas.style.objectFit = 'contain'
  holder.value?.replaceChildren(canvas)
  viewId = engine.calls().views.open(canvas.transferControlToOffscreen(), props.request)
}

function close(): void {
  if (viewId !== null) engine.calls().views.close(viewId)
  viewId = null
}

onMounted(open)
onBeforeUnmount(close)
watch(
  () => JSON.stringify(props.request),
  () => {
    if (viewId !== null) engine.calls().views.change(viewId, props.request)
  },
)
watch(
  () => [props.widthPx, props.heightPx, engine.generation],
  () => {
    close()
    open()
  },
)
</script>

<template>
  <div
    ref="holder"
    :role="label === '' ? undefined : 'img'"
    :aria-label="label === '' ? undefined : label"
    :aria-hidden="label === '' ? 'true' : undefined"
  ></div>
</template>
