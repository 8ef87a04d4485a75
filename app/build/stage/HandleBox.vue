<script setup lang="ts">
// The box of what is selected: its outline, handles on edges and corners, and one to turn it by.
import { computed } from 'vue'
import type { Towards } from '../../../core/layout/resize.ts'
import type { Placement } from '../../../core/show/show.ts'
import type { Grip } from './use-stage-gestures.ts'

const props = defineProps<{ placement: Omit<Placement, 'fit'>; zoom: number; canMove: boolean; canSize: boolean }>()
const emit = defineEmits<{ grab: [event: MouseEvent, grip: Grip] }>()

const style = computed(() => {
  const { zoom } = props
  const { x, y, width, height, angleDeg } = props.placement
  return { left: `${x * zoom}px`, top: `${y * zoom}px`, width: `${width * zoom}px`, height: `${height * zoom}px`, transform: `rotate(${angleDeg}deg)` }
})
const handles: readonly Towards[] = ([-1, 0, 1] as const).flatMap((y) => ([-1, 0, 1] as const).flatMap((x) => (x === 0 && y === 0 ? [] : [{ x, y }])))
const CURSORS = ['ew-resize', 'nwse-resize', 'ns-resize', 'nesw-resize'] as const

/** The arrow that points the way the handle goes, turned as the box is. */
function cursorOf({ x, y }: Towards): string {
  const angle = (Math.atan2(y, x) * 180) / Math.PI + props.placement.angleDeg
  return CURSORS[((Math.round(angle / 45) % 4) + 4) % 4]!
}
</script>

<template>
  <div class="box absolute" :class="canMove ? '' : 'is-fixed'" :style="style" data-testid="selection">
    <template v-if="canSize">
      <span class="stem" aria-hidden="true"></span>
      <span class="handle is-turn" data-handle="turn" @mousedown.stop.left="emit('grab', $event, { kind: 'turn' })"></span>
      <span
        v-for="towards in handles"
        :key="`${towards.x} ${towards.y}`"
        class="handle"
        :data-handle="`${towards.x} ${towards.y}`"
        :style="{ left: `${50 + 50 * towards.x}%`, top: `${50 + 50 * towards.y}%`, cursor: cursorOf(towards) }"
        @mousedown.stop.left="emit('grab', $event, { kind: 'size', towards })"
      ></span>
    </template>
  </div>
</template>

<style scoped>
.box {
  outline: 1px solid #e2b24c;
  cursor: move;
}
.box.is-fixed {
  outline-style: dashed;
  cursor: default;
}
.handle {
  position: absolute;
  z-index: 1;
  width: 10px;
  height: 10px;
  margin: -5px 0 0 -5px;
  border: 1.5px solid #a87823;
  border-radius: 1px;
  background: #fff;
}
/* A little more to take hold of than is seen. */
.handle::after {
  content: '';
  position: absolute;
  inset: -5px;
}
.handle.is-turn {
  left: 50%;
  top: -32px;
  border-radius: 10px;
  cursor: grab;
}
.stem {
  position: absolute;
  left: 50%;
  top: -28px;
  width: 1px;
  height: 28px;
  background: #e2b24c;
}
</style>
