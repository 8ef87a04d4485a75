<script setup lang="ts">
// How well the words of a text stand out from what lies behind them, measured on the picture as it is now.
import { useIntervalFn } from '@vueuse/core'
import { CircleAlert, CircleCheck } from 'lucide-vue-next'
import { computed, ref, useTemplateRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { LEAST_CONTRAST } from '../../core/colour/contrast.ts'
import { parseHex } from '../../core/colour/hex.ts'
import { textOf } from '../../core/layers/text.ts'
import { contrastAgainst } from '../../core/palette/text-contrast.ts'
import { newScene } from '../../core/show/create.ts'
import { colourIn } from '../../core/show/style.ts'
import type { Content, Layer, TextLayer } from '../../core/show/show.ts'
import { useAirStore } from '../air/air.store.ts'
import { figure } from '../base/decimals.ts'
import LivePicture from '../live-picture/LivePicture.vue'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'

const props = defineProps<{ layer: TextLayer }>()
const { t, n } = useI18n()
const showStore = useShowStore()
const air = useAirStore()
const holder = useTemplateRef<HTMLElement>('holder')
const WIDTH_PX = 240
const EVERY_MS = 700
/** Large text on a canvas of 720 lines: 24 px, or 18.66 px bold (WCAG 2.2, "large scale"). */
const LARGE_PX = 24
const LARGE_BOLD_PX = 18.66
const BOLD = 700

const contentId = makeId()
const sceneId = makeId()
const canvas = computed(() => showStore.show!.canvas)
const heightPx = computed(() => Math.max(1, Math.round((WIDTH_PX * canvas.value.heightPx) / canvas.value.widthPx)))

/** All that lies behind the words: the layers behind the text, and its own plate. */
const behind = computed<{ readonly layers: readonly Layer[]; readonly contents: readonly Content[] }>(() => {
  const { show, scene } = showStore
  const index = scene?.layers.findIndex(({ id }) => id === props.layer.id) ?? -1
  const under = scene?.graphic == null ? undefined : show?.scenes.find(({ id }) => id === (air.onAirId ?? showStore.onAirId))
  const text = textOf(show!, props.layer)
  const wordless = { ...text, outline: null, shadow: null, blocks: text.blocks.map((block) => ({ ...block, text: '\u00a0' })) }
  return {
    layers: [
      ...(under?.layers ?? []),
      ...(index < 0 ? [] : scene!.layers.slice(0, index)),
      { ...props.layer, id: contentId, contentId, entrance: null, exit: null },
    ],
    contents: [{ id: contentId, kind: 'text', text: wordless }],
  }
})
const request = computed(() => ({
  kind: 'draft' as const,
  scene: { ...newScene('', () => sceneId), layers: behind.value.layers },
  contents: behind.value.contents,
}))

/** The worst line: its ratio, and what it needs. Null until it is measured. */
const worst = ref<{ readonly ratio: number; readonly needed: number } | null>(null)

function measure(): void {
  const source = holder.value?.querySelector('canvas')
  const { show } = showStore
  if (source == null || show === null) return
  const scale = WIDTH_PX / canvas.value.widthPx
  const { x, y, width, height } = props.layer.placement
  const [left, top] = [Math.max(0, Math.floor(x * scale)), Math.max(0, Math.floor(y * scale))]
  const [right, bottom] = [Math.min(WIDTH_PX, Math.ceil((x + width) * scale)), Math.min(heightPx.value, Math.ceil((y + height) * scale))]
  if (right <= left || bottom <= top) return
  const pen = new OffscreenCanvas(WIDTH_PX, heightPx.value).getContext('2d', { willReadFrequently: true })!
  pen.drawImage(source, 0, 0)
  const { data } = pen.getImageData(left, top, right - left, bottom - top)
  // Nothing is drawn yet.
  if (data[3] === 0) return
  const lines = textOf(show, props.layer).blocks.filter(({ text }) => text.trim() !== '')
  const measured = lines.flatMap(({ colour, sizePx, weight }) => {
    const ratio = contrastAgainst(parseHex(colourIn(show.style, colour)), data)
    const sizeAt720 = (sizePx * 720) / Math.min(canvas.value.widthPx, canvas.value.heightPx)
    const isLarge = sizeAt720 >= LARGE_PX || (weight >= BOLD && sizeAt720 >= LARGE_BOLD_PX)
    return ratio === null ? [] : [{ ratio, needed: isLarge ? LEAST_CONTRAST.largeText : LEAST_CONTRAST.text }]
  })
  worst.value = measured.reduce<typeof worst.value>((low, one) => (low === null || one.ratio / one.needed < low.ratio / low.needed ? one : low), null)
}
useIntervalFn(measure, EVERY_MS)
watch(
  () => props.layer.id,
  () => (worst.value = null),
)
const isGood = computed(() => worst.value !== null && worst.value.ratio >= worst.value.needed)
// Rounded down: 4.49 is not 4.5.
const said = (ratio: number) => figure(n(Math.floor(ratio * 10) / 10))
</script>

<template>
  <div class="relative mb-2">
    <div ref="holder" class="pointer-events-none absolute size-px overflow-hidden opacity-0" aria-hidden="true">
      <LivePicture :request="request" :width-px="WIDTH_PX" :height-px="heightPx" label="" />
    </div>
    <p v-if="worst" class="flex items-start gap-1.5 text-[12.5px] leading-snug" :class="isGood ? 'text-soft' : 'rounded-md bg-wash px-2 py-1'" role="status">
      <component :is="isGood ? CircleCheck : CircleAlert" :size="14" class="mt-px shrink-0" aria-hidden="true" />
      <span>{{
        isGood
          ? t('inspector.contrastGood', { ratio: said(worst.ratio) })
          : t('inspector.contrastLow', { ratio: said(worst.ratio), needed: said(worst.needed) })
      }}</span>
    </p>
  </div>
</template>
