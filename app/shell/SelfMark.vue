<script setup lang="ts">
// A line of dashes under the name, by which the studio knows its own picture in a screen that is shared with it.
import { SELF_MARK_CELL_PX, selfMarkCells } from '../../core/marks/self-mark.ts'

const width = selfMarkCells.length * SELF_MARK_CELL_PX
</script>

<template>
  <svg dir="ltr" :width="width" height="2" shape-rendering="crispEdges" aria-hidden="true">
    <rect
      v-for="(cell, i) in selfMarkCells"
      :key="i"
      :x="i * SELF_MARK_CELL_PX"
      y="0"
      :width="SELF_MARK_CELL_PX"
      height="2"
      :fill="cell === 1 ? 'var(--mark-light)' : 'var(--mark-dark)'"
    />
  </svg>
</template>
