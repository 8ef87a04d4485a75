<script setup lang="ts">
import { EyeOff, Lock } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { hasStep } from '../../core/show/edits.ts'
import type { Layer } from '../../core/show/show.ts'
import LivePicture from '../live-picture/LivePicture.vue'
import { useShowStore } from '../show/show.store.ts'

const props = defineProps<{ layer: Layer; sceneId: string; isSelected: boolean }>()
const { t } = useI18n()
const showStore = useShowStore()
const THUMB_WIDTH_PX = 192

const input = computed(() => {
  const { layer } = props
  return layer.kind === 'input' ? showStore.show?.inputs.find((candidate) => candidate.id === layer.inputId) : undefined
})
const thumbHeight = computed(() => Math.round((THUMB_WIDTH_PX * showStore.show!.canvas.heightPx) / showStore.show!.canvas.widthPx))
const what = computed(() => {
  const kind = t(`layer.kinds.${input.value?.kind ?? 'text'}`)
  const isKeyed =
    input.value !== undefined &&
    hasStep(
      input.value.treatment.filter((step) => step.on),
      'chromaKey',
    )
  return isKeyed ? `${kind} · ${t('layer.keyed')}` : kind
})
</script>

<template>
  <li
    class="pane group -mr-3 w-[126px] shrink-0 cursor-grab active:cursor-grabbing"
    tabindex="0"
    role="button"
    :aria-label="`${layer.name}, ${what}${layer.visible ? '' : `, ${t('layer.hidden')}`}`"
    :aria-pressed="isSelected"
    :data-layer="layer.name"
  >
    <div
      class="flat checker relative overflow-hidden rounded-[2px] border"
      :class="[isSelected ? 'is-selected border-brass' : 'border-line', layer.visible ? '' : 'opacity-45']"
    >
      <LivePicture
        class="aspect-video"
        :request="{ kind: 'layer', sceneId, layerId: layer.id }"
        :width-px="THUMB_WIDTH_PX"
        :height-px="thumbHeight"
        :label="layer.name"
      />
    </div>
    <div class="label mt-3 mr-3 h-[40px] px-1 pt-0.5 text-center leading-tight">
      <span class="block truncate font-semibold" :title="layer.name">{{ layer.name }}</span>
      <span class="flex items-center justify-center gap-1 text-[11.5px] text-soft">
        <EyeOff v-if="!layer.visible" :size="12" :aria-label="t('layer.hidden')" />
        <Lock v-if="layer.locked" :size="12" :aria-label="t('layer.locked')" />
        <span class="truncate">{{ what }}</span>
      </span>
    </div>
  </li>
</template>

<style scoped>
.pane {
  perspective: 420px;
}
/* Its neighbour stands in front of a pane, so the ring goes around the name. */
.pane:focus-visible {
  outline: none;
}
.pane:focus-visible .label {
  border-radius: 4px;
  outline: 2px solid var(--brass);
  outline-offset: -2px;
}
.flat {
  transform: rotateY(38deg);
  transform-origin: 50% 100%;
  box-shadow: -5px 4px 9px #00000030;
}
.is-selected {
  outline: 2.5px solid var(--brass);
  outline-offset: 2px;
}
</style>
