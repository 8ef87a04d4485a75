<script setup lang="ts">
// The pens, their colours and widths, and what becomes of what was drawn.
import { ArrowUpRight, Circle, CircleDot, Eraser, Flashlight, Highlighter, PenLine, Redo2, Save, Slash, Square, Timer, Trash2, Undo2, X } from 'lucide-vue-next'
import { strokeWidths, type StrokeWidth } from '../../core/drawing/stroke.ts'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { PointerKind } from '../../core/stage/pointer.ts'
import { useAirStore } from '../air/air.store.ts'
import IconButton from '../base/IconButton.vue'
import { useShowStore } from '../show/show.store.ts'
import { useLanguage } from '../shell/use-language.ts'
import { useDrawingStore, type DrawingTool } from './drawing.store.ts'
import { useKeepDrawing } from './use-keep-drawing.ts'

const { t } = useI18n()
const { direction } = useLanguage()
const drawing = useDrawingStore()
const air = useAirStore()
const showStore = useShowStore()
const { keep } = useKeepDrawing()
const tools: readonly (readonly [DrawingTool, typeof PenLine])[] = [
  ['pen', PenLine],
  ['marker', Highlighter],
  ['line', Slash],
  ['arrow', ArrowUpRight],
  ['rectangle', Square],
  ['ellipse', Circle],
  ['eraser', Eraser],
]
const pointers: readonly (readonly [PointerKind, typeof PenLine])[] = [
  ['dot', CircleDot],
  ['spotlight', Flashlight],
]
const isOnAir = computed(() => air.onAirId !== null && air.onAirId === showStore.sceneId)
const widths = Object.keys(strokeWidths) as StrokeWidth[]
const dotPx: Readonly<Record<StrokeWidth, number>> = { fine: 4, medium: 7, broad: 11 }
</script>

<template>
  <div
    class="absolute inset-x-0 bottom-2 mx-auto flex w-fit max-w-[calc(100%-16px)] flex-wrap items-center justify-center gap-x-2 gap-y-1 rounded-xl border border-line bg-paper px-2 py-1 shadow-lg"
    :dir="direction()"
    role="toolbar"
    :aria-label="t('drawing.bar')"
    data-testid="draw-bar"
  >
    <div class="flex" role="group" :aria-label="t('drawing.tools')">
      <IconButton
        v-for="[tool, icon] in tools"
        :key="tool"
        size="small"
        :icon="icon"
        :label="t(`drawing.tool.${tool}`)"
        :is-on="drawing.tool === tool"
        @click="drawing.tool = tool"
      />
      <IconButton
        v-for="[kind, icon] in pointers"
        :key="kind"
        size="small"
        :icon="icon"
        :label="isOnAir ? t(`drawing.tool.${kind}`) : t('drawing.onlyOnAir', { tool: t(`drawing.tool.${kind}`) })"
        :is-on="drawing.pointing === kind"
        :disabled="!isOnAir"
        @click="drawing.tool = kind"
      />
    </div>
    <div class="flex items-center gap-1 border-s border-line ps-2" role="group" :aria-label="t('drawing.colour')">
      <button
        v-for="(colour, index) in drawing.colours"
        :key="colour"
        type="button"
        class="grid size-6 place-items-center rounded-md hover:bg-sunk"
        :aria-label="t('drawing.colourOf', { n: index + 1, colour })"
        :aria-pressed="drawing.colour === colour"
        @click="drawing.chooseColour(colour)"
      >
        <span
          class="size-3.5 rounded-full border border-soft"
          :class="drawing.colour === colour ? 'outline-2 outline-offset-2 outline-brass' : ''"
          :style="{ background: colour }"
        ></span>
      </button>
    </div>
    <div class="flex items-center border-s border-line ps-2" role="group" :aria-label="t('drawing.width')">
      <button
        v-for="width in widths"
        :key="width"
        type="button"
        class="grid size-6 place-items-center rounded-md"
        :class="drawing.width === width ? 'bg-wash text-brass' : 'text-soft hover:bg-sunk hover:text-ink'"
        :aria-label="t(`drawing.widths.${width}`)"
        :aria-pressed="drawing.width === width"
        @click="drawing.width = width"
      >
        <span class="rounded-full bg-current" :style="{ width: `${dotPx[width]}px`, height: `${dotPx[width]}px` }"></span>
      </button>
    </div>
    <div class="flex border-s border-line ps-2">
      <IconButton size="small" :icon="Timer" :label="t('drawing.fades')" :is-on="drawing.fades" @click="drawing.fades = !drawing.fades" />
      <IconButton size="small" :icon="Undo2" :label="t('drawing.undo')" :disabled="!drawing.canUndo" @click="drawing.undo()" />
      <IconButton size="small" :icon="Redo2" :label="t('drawing.redo')" :disabled="!drawing.canRedo" @click="drawing.redo()" />
      <IconButton size="small" :icon="Trash2" :label="t('commands.does.clearDrawing')" :disabled="!drawing.isAnyDrawn" @click="drawing.clear()" />
      <IconButton size="small" :icon="Save" :label="t('commands.does.keepDrawing')" :disabled="!drawing.isAnyDrawn" @click="keep" />
      <IconButton size="small" :icon="X" :label="t('drawing.done')" @click="drawing.isOn = false" />
    </div>
  </div>
</template>
