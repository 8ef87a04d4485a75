<script setup lang="ts">
// The stack seen from the side: the wall at the left, the audience at the right.
import { CircleAlert, Eye } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { VueDraggable } from 'vue-draggable-plus'
import { hiddenLayers } from '../../core/layout/hidden-layers.ts'
import { moveLayer } from '../../core/show/edits.ts'
import { useEngineStore } from '../engine/engine.store.ts'
import { useShowStore } from '../show/show.store.ts'
import DepthPane from './DepthPane.vue'

const { t } = useI18n()
const showStore = useShowStore()
const engine = useEngineStore()
/** Less than this is how things overlap by design. */
const TELL_FROM = 0.08
/** A wall or a picture at the back is there to be covered; only its vanishing is worth a word. */
const TELL_WALL_FROM = 0.995
/** From here on the presenter asks where the layer has gone. */
const FIX_FROM = 0.5

const layers = computed(() => showStore.scene?.layers ?? [])
const worst = computed(() => {
  if (showStore.show === null || showStore.scene === null) return null
  const found = hiddenLayers(showStore.show, showStore.scene, engine.infos).filter((hidden) => hidden.hiddenShare >= tellFrom(hidden.layerId))
  return found.reduce<(typeof found)[number] | null>((most, hidden) => (most === null || hidden.hiddenShare > most.hiddenShare ? hidden : most), null)
})
function tellFrom(layerId: string): number {
  const layer = layers.value.find((candidate) => candidate.id === layerId)
  if (layer?.kind === 'text') return TELL_FROM
  const input = showStore.show?.inputs.find((candidate) => candidate.id === layer?.inputId)
  return input?.kind === 'camera' ? TELL_FROM : TELL_WALL_FROM
}

const nameOf = (layerId: string) => layers.value.find((layer) => layer.id === layerId)?.name ?? ''
const warning = computed(() => {
  if (worst.value === null) return null
  const { hiddenShare, layerId, coveredBy } = worst.value
  const names = { front: nameOf(coveredBy), back: nameOf(layerId) }
  return hiddenShare > 0.995 ? t('build.hidesAll', names) : t('build.hides', { ...names, share: `${Math.round(hiddenShare * 100)} %` })
})

function move(layerId: string, index: number): void {
  const { sceneId } = showStore
  if (sceneId === null || index < 0 || index >= layers.value.length) return
  showStore.edit(t('edits.moveLayer'), (show) => moveLayer(show, sceneId, layerId, index))
}

function onDrop(event: { oldIndex?: number | undefined; newIndex?: number | undefined }): void {
  const layer = layers.value[event.oldIndex ?? -1]
  if (layer !== undefined && event.newIndex !== undefined && event.newIndex !== event.oldIndex) move(layer.id, event.newIndex)
}

/** Puts the hidden layer just in front of what hides it. */
function fix(): void {
  if (worst.value === null) return
  move(
    worst.value.layerId,
    layers.value.findIndex((layer) => layer.id === worst.value?.coveredBy),
  )
}

function onKey(event: KeyboardEvent, layerId: string, index: number): void {
  if (event.key === 'Enter' || event.key === ' ') showStore.selectLayer(layerId)
  else if (event.altKey && event.key === 'ArrowLeft') move(layerId, index - 1)
  else if (event.altKey && event.key === 'ArrowRight') move(layerId, index + 1)
  else return
  event.preventDefault()
}
</script>

<template>
  <section class="flex min-h-0 min-w-0 flex-col bg-paper px-4 pt-2.5 pb-2" :aria-label="t('build.depth')">
    <div class="flex h-6 items-center gap-2.5">
      <h2 class="font-head text-[15px] font-bold">{{ t('build.depth') }}</h2>
      <span class="text-soft">{{ t('build.depthHint') }}</span>
      <span v-if="warning" role="status" class="ml-auto flex min-w-0 items-center gap-1.5 text-brass">
        <CircleAlert :size="14" class="shrink-0" aria-hidden="true" />
        <span class="truncate">{{ warning }}</span>
        <button
          v-if="worst && worst.hiddenShare >= FIX_FROM"
          type="button"
          class="ml-1 shrink-0 font-medium underline underline-offset-2 hover:text-ink"
          @click="fix"
        >
          {{ t('build.bringForward', { back: nameOf(worst.layerId) }) }}
        </button>
      </span>
    </div>
    <div class="relative flex min-h-0 flex-1 items-stretch">
      <div class="absolute inset-x-0 bottom-[44px] h-px bg-line" aria-hidden="true"></div>
      <div class="mt-2 mb-[44px] flex shrink-0 items-center border-r-[6px] border-line pr-1 text-soft" aria-hidden="true">
        <span class="[writing-mode:vertical-rl] rotate-180">{{ t('build.wall') }}</span>
      </div>
      <VueDraggable
        :model-value="[...layers]"
        tag="ol"
        class="flex min-w-0 flex-1 items-end overflow-x-auto overflow-y-hidden px-4"
        :animation="150"
        :force-fallback="true"
        :fallback-tolerance="4"
        direction="horizontal"
        :title="t('build.depthHelp')"
        data-testid="depth"
        @end="onDrop"
      >
        <DepthPane
          v-for="(layer, index) in layers"
          :key="layer.id"
          :layer="layer"
          :scene-id="showStore.sceneId!"
          :is-selected="layer.id === showStore.layerId"
          @click="showStore.selectLayer(layer.id)"
          @keydown.self="onKey($event, layer.id, index)"
        />
      </VueDraggable>
      <div class="mb-[48px] flex shrink-0 flex-col items-center justify-end gap-0.5 pl-2 text-green" aria-hidden="true">
        <Eye :size="22" />
        <span class="text-soft">{{ t('build.audience') }}</span>
      </div>
    </div>
  </section>
</template>
