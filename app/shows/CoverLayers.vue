<script setup lang="ts">
// The layers of a cover, those of groups and of other scenes too.
import { fillOf, textOf } from '../../core/show/contents.ts'
import type { Layer, Show, TextLayer } from '../../core/show/show.ts'

/** `depth`: how many groups or scenes deep it is followed. */
const props = defineProps<{ show: Show; layers: readonly Layer[]; depth: number }>()

function inputOf(layer: Layer) {
  return layer.kind === 'input' ? props.show.inputs.find((input) => input.id === layer.inputId) : undefined
}

function assetUrl(layer: Layer): string | null {
  const input = inputOf(layer)
  return input?.kind === 'picture' ? `/api/assets/${input.asset}` : null
}

function colourOf(layer: Layer): string | null {
  if (layer.kind === 'shape') {
    const fill = fillOf(props.show, layer)
    return fill.kind === 'plain' ? fill.colour : fill.stops[0]!.colour
  }
  const input = inputOf(layer)
  return input?.kind === 'colour' ? input.colour : null
}

const plateOf = (layer: TextLayer) => textOf(props.show, layer).plate

/** Lines of a text with their baselines, set in the middle of the box. */
function linesOf(layer: Layer) {
  if (layer.kind !== 'text') return []
  const lines = textOf(props.show, layer).blocks.flatMap((block) => block.text.split('\n').map((text) => ({ ...block, text })))
  const total = lines.reduce((sum, line) => sum + line.sizePx * LINE_HEIGHT, 0)
  let y = (layer.placement.height - total) / 2
  return lines.map((line) => {
    y += line.sizePx * LINE_HEIGHT
    return { ...line, y: y - line.sizePx * 0.28 }
  })
}

/** How round its corners are: an ellipse is a box that is round all along. */
function roundingOf({ frame, placement }: Layer): number {
  return frame.form === 'box' ? frame.cornerRadiusPx : Math.min(placement.width, placement.height) / 2
}

function layersOfScene(sceneId: string): readonly Layer[] {
  return props.show.scenes.find((scene) => scene.id === sceneId)?.layers ?? []
}

/** Where a layer lies, as SVG attributes. */
function boxOf({ placement }: Layer) {
  const { x, y, width, height, fit } = placement
  return { x, y, width, height, preserveAspectRatio: slice[fit] }
}

const LINE_HEIGHT = 1.22
const SHOULDERS = 'M290 720c6-96 40-132 118-152l146-40c22-8 32-22 32-46v-34h108v34c0 24 10 38 32 46l146 40c78 20 112 56 118 152z'
const HEAD = 'M640 110c96 0 152 66 156 170 4 92-8 150-40 172-26 16-54 2-64-32-30 32-74 32-104 0-10 34-38 48-64 32-32-22-44-80-40-172 4-104 60-170 156-170z'
const slice = { fit: 'xMidYMid meet', fill: 'xMidYMid slice', stretch: 'none' } as const
</script>

<template>
  <g v-for="layer in layers" :key="layer.id" :opacity="layer.visible ? layer.opacity : 0">
    <image v-if="assetUrl(layer)" :href="assetUrl(layer)!" v-bind="boxOf(layer)" />
    <rect v-else-if="colourOf(layer)" v-bind="boxOf(layer)" :rx="roundingOf(layer)" :fill="colourOf(layer)!" />
    <g v-else-if="layer.kind === 'text'" :transform="`translate(${layer.placement.x} ${layer.placement.y})`">
      <rect v-if="plateOf(layer)" :width="layer.placement.width" :height="layer.placement.height" :fill="plateOf(layer)!.colour" />
      <text
        v-for="line in linesOf(layer)"
        :key="line.y"
        :x="textOf(show, layer).align === 'centre' ? layer.placement.width / 2 : (plateOf(layer)?.paddingPx ?? 0) * 1.3"
        :y="line.y"
        :font-size="line.sizePx"
        :font-weight="line.weight"
        :fill="line.colour"
        :text-anchor="textOf(show, layer).align === 'centre' ? 'middle' : 'start'"
        :font-family="`'${textOf(show, layer).family} Variable', 'Noto Sans Variable', sans-serif`"
      >
        {{ line.text }}
      </text>
    </g>
    <svg
      v-else-if="(layer.kind === 'group' || layer.kind === 'scene') && depth > 0"
      :viewBox="`0 0 ${show.canvas.widthPx} ${show.canvas.heightPx}`"
      v-bind="boxOf(layer)"
    >
      <CoverLayers :show="show" :layers="layer.kind === 'group' ? layer.layers : layersOfScene(layer.sceneId)" :depth="depth - 1" />
    </svg>
    <svg v-else-if="inputOf(layer)?.kind === 'camera'" viewBox="0 0 1280 720" v-bind="boxOf(layer)">
      <!-- A person, where a camera will be. -->
      <path :d="SHOULDERS" fill="#1d2a26" opacity="0.42" />
      <path :d="HEAD" fill="#1d2a26" opacity="0.42" />
    </svg>
  </g>
</template>
