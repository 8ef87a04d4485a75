<script setup lang="ts">
// Lines and gaps that what is being moved has come to rest on.
import type { SnapGuide } from '../../../core/layout/snap.ts'

const props = defineProps<{ guides: readonly SnapGuide[]; zoom: number }>()

function styleOf(guide: SnapGuide) {
  const [from, to, at] = [guide.from, guide.to, guide.at].map((px) => px * props.zoom) as [number, number, number]
  const length = `${Math.max(1, to - from)}px`
  // A line runs across its axis, a gap along it.
  const isUpright = (guide.kind === 'line') === (guide.axis === 'x')
  return isUpright ? { left: `${at}px`, top: `${from}px`, height: length, width: '1px' } : { left: `${from}px`, top: `${at}px`, width: length, height: '1px' }
}
</script>

<template>
  <span
    v-for="(guide, i) in guides"
    :key="i"
    class="pointer-events-none absolute"
    :class="guide.kind === 'gap' ? 'gap' : 'line'"
    :data-guide="guide.kind === 'gap' ? 'gap' : guide.reason"
    :style="styleOf(guide)"
  ></span>
</template>

<style scoped>
/* Seen on any picture: light with a dark edge. */
.line {
  background: #6be3bd;
  box-shadow: 0 0 0 0.5px #00000066;
}
.gap {
  background: #f2a7c3;
  box-shadow: 0 0 0 1px #00000066;
  outline: 1px solid #f2a7c3;
}
</style>
