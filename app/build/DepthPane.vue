<script setup lang="ts">
import { isGroup } from '../../core/layers/group.ts'
import { inputOf, inputIdOf } from '../../core/layers/index.ts'
import { EyeOff, Group, Lock, Sparkle } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Appearance } from '../../core/motion/appearance.ts'
import { hasStep } from '../../core/show/edits.ts'
import type { Layer } from '../../core/show/show.ts'
import LivePicture from '../live-picture/LivePicture.vue'
import { useShowStore } from '../show/show.store.ts'

const props = defineProps<{ layer: Layer; sceneId: string; isSelected: boolean; isStop: boolean; place: string; unseen: string | null }>()
const emit = defineEmits<{ select: [event: MouseEvent]; key: [event: KeyboardEvent]; open: [] }>()
const { t, n } = useI18n()
const showStore = useShowStore()
const THUMB_WIDTH_PX = 160

const input = computed(() => (showStore.show === null ? undefined : inputOf(showStore.show, props.layer)))
const thumbHeight = computed(() => Math.round((THUMB_WIDTH_PX * showStore.show!.canvas.heightPx) / showStore.show!.canvas.widthPx))
const what = computed(() => {
  const { layer } = props
  const kind = t(`layer.kinds.${input.value?.kind ?? (inputIdOf(layer) === null ? layer.kind : 'picture')}`)
  const isKeyed =
    input.value !== undefined &&
    hasStep(
      input.value.treatment.filter((step) => step.on),
      'chromaKey',
    )
  return isKeyed ? `${kind} · ${t('layer.keyed')}` : kind
})
/** How it comes and goes, in words; null for a layer that is simply there. */
const motion = computed(() => {
  const { entrance, exit } = props.layer
  const said = [
    entrance === null ? [] : [t('layer.comesBy', { how: t(`inspector.motions.${entrance.kind}`), seconds: secondsOf(entrance) })],
    exit === null ? [] : [t('layer.goesBy', { how: t(`inspector.motions.${exit.kind}`), seconds: secondsOf(exit) })],
  ].flat()
  return said.length === 0 ? null : said.join(', ')
})
const secondsOf = ({ delayMs, durationMs }: Appearance) => n((delayMs + durationMs) / 1000)
const says = computed(() => [props.layer.name, what.value, ...[motion.value, props.unseen].filter((one) => one !== null)])
</script>

<template>
  <li class="pane -me-2 shrink-0" :data-layer="layer.name" :data-layer-id="layer.id">
    <button
      type="button"
      class="block w-full cursor-grab rounded-md active:cursor-grabbing"
      :tabindex="isStop ? 0 : -1"
      :aria-label="[layer.name, what, place, motion, unseen].filter((one) => one !== null).join(', ')"
      :aria-pressed="isSelected"
      aria-keyshortcuts="Shift+ArrowLeft Shift+ArrowRight Control+Space Control+A Delete"
      :title="says.join(' · ')"
      @click="emit('select', $event)"
      @dblclick="emit('open')"
      @keydown="emit('key', $event)"
    >
      <span
        class="flat checker relative mx-auto block overflow-hidden rounded-[2px] border"
        :class="[isSelected ? 'is-selected border-brass' : 'border-line', layer.visible ? '' : 'opacity-45']"
      >
        <LivePicture
          class="pointer-events-none aspect-video"
          :request="{ kind: 'layer', sceneId, layerId: layer.id }"
          :width-px="THUMB_WIDTH_PX"
          :height-px="thumbHeight"
          label=""
        />
      </span>
      <span class="label mt-1 flex h-4 items-center justify-center gap-1 pe-2.5 ps-0.5 text-[12px] leading-4">
        <EyeOff v-if="unseen" :size="11" class="shrink-0" :class="layer.visible ? 'text-brass' : ''" aria-hidden="true" />
        <Sparkle v-if="motion" :size="10" class="shrink-0 text-brass" aria-hidden="true" />
        <Lock v-if="layer.locked" :size="11" class="shrink-0" :aria-label="t('layer.locked')" />
        <Group v-if="isGroup(layer)" :size="11" class="shrink-0" aria-hidden="true" />
        <span dir="auto" class="truncate font-medium">{{ layer.name }}</span>
      </span>
    </button>
  </li>
</template>

<style scoped>
.pane {
  --flat: min(118px, calc((var(--band) - 54px) * 1.6));
  width: calc(var(--flat) + 16px);
  perspective: 320px;
}
/* Its neighbour stands in front of a pane, so the ring goes around the name. */
.pane button:focus-visible {
  outline: none;
}
.pane button:focus-visible .label {
  border-radius: 4px;
  outline: 2px solid var(--brass);
}
.flat {
  width: var(--flat);
  transform: rotateY(36deg);
  transform-origin: 50% 100%;
  box-shadow: -4px 3px 7px #00000030;
}
.is-selected {
  outline: 2px solid var(--brass);
  outline-offset: 1px;
}
</style>
