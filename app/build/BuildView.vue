<script setup lang="ts">
import { useEventListener, useLocalStorage } from '@vueuse/core'
import { computed, onScopeDispose, ref, watch, watchEffect } from 'vue'
import { useI18n } from 'vue-i18n'
import { findLayer } from '../../core/layers/tree.ts'
import { useWindowShape } from '../shell/use-window-shape.ts'
import { useOpenShow } from '../show/use-open-show.ts'
import { useShowStore } from '../show/show.store.ts'
import DepthStrip from './DepthStrip.vue'
import LayerInspector from './LayerInspector.vue'
import SceneList from './SceneList.vue'
import { fromShow, styleColours } from '../../core/style/style-names.ts'
import { colourIn } from '../../core/show/style.ts'
import { provideColourMeaning } from '../base/colour-meaning.ts'
import BackgroundGallery from '../backgrounds/BackgroundGallery.vue'
import GraphicGallery from '../graphics/GraphicGallery.vue'
import { layerTarget } from '../commands/layer-target.ts'
import DeckImport from '../decks/DeckImport.vue'
import PanelEdge from '../base/PanelEdge.vue'
import { INSPECTOR_PX, SCENES_PX, usePanelWidths } from './use-panel-widths.ts'
import { useLayerActions } from './use-layer-actions.ts'
import { useClipboard } from './use-clipboard.ts'
import StageArea from './stage/StageArea.vue'
import StageTools from './stage/StageTools.vue'

const props = defineProps<{
  showId: string
  /** What a link leads to. */
  sceneId?: string
  layerId?: string
}>()
const { t } = useI18n()
const showStore = useShowStore()
useOpenShow(() => props.showId)

// While Build is open, commands act on its selection.
const { target } = useLayerActions()
watchEffect(() => (layerTarget.value = target.value))
onScopeDispose(() => (layerTarget.value = null))

// Colours and typefaces of the show are known by what they are for.
provideColourMeaning(
  (colour) => (showStore.show === null ? colour : colourIn(showStore.show.style, colour)),
  computed(() => styleColours.map((name) => ({ value: fromShow(name), label: t(`graphics.colours.${name}`) }))),
)

const { onClipboard } = useClipboard()
for (const kind of ['paste', 'copy', 'cut'] as const) useEventListener(document, kind, onClipboard)

/** In a narrow window the inspector lies over the stage, and only when asked for. */
const { isNarrow, isStacked } = useWindowShape()
const { scenes: scenesWidth, inspector: inspectorWidth } = usePanelWidths()
const staysOpen = useLocalStorage('green-room:inspector', true)
const isOver = ref(false)
const isOpen = computed(() => isStacked.value || (isNarrow.value ? isOver.value : staysOpen.value))

function openInspector(): void {
  if (!isOpen.value) toggle()
}

function toggle(): void {
  if (isNarrow.value) isOver.value = !isOver.value
  else staysOpen.value = !staysOpen.value
}

// A link may lead to one scene, or one layer.
watch(
  [() => props.sceneId, () => props.layerId, () => showStore.showId],
  ([sceneId, layerId]) => {
    if (showStore.showId !== props.showId) return
    if (sceneId !== undefined && showStore.show?.scenes.some((scene) => scene.id === sceneId) === true) showStore.selectScene(sceneId)
    if (layerId !== undefined && showStore.scene !== null && findLayer(showStore.scene, layerId) !== undefined) showStore.selectLayer(layerId)
  },
  { immediate: true },
)
</script>

<template>
  <main
    v-if="showStore.show"
    tabindex="-1"
    class="build"
    :class="[isOpen ? 'is-open' : 'is-folded', isNarrow ? 'is-narrow' : '']"
    :style="{ '--scenes-px': `${scenesWidth.widthPx.value}px`, '--inspector-px': `${inspectorWidth.widthPx.value}px` }"
  >
    <h1 class="sr-only">{{ t('build.heading', { show: showStore.show.name }) }}</h1>
    <SceneList class="build-scenes border-e border-line" @open-inspector="openInspector" />
    <StageArea class="build-stage" />
    <DepthStrip class="build-depth border-t border-line" :is-inspector-open="isOpen" :can-fold="!isStacked" @toggle-inspector="toggle">
      <StageTools />
    </DepthStrip>
    <GraphicGallery @added="openInspector" />
    <BackgroundGallery />
    <DeckImport />
    <LayerInspector v-if="isOpen" class="build-inspector border-s border-line" @close="isNarrow && toggle()" />
    <!-- Last, so that the Tab key comes to what is worked with first. -->
    <template v-if="!isStacked">
      <PanelEdge
        v-model:width-px="scenesWidth.widthPx.value"
        v-bind="SCENES_PX"
        class="scenes-edge"
        side="end"
        :label="t('build.scenesWidth')"
        @reset="scenesWidth.reset()"
      />
      <PanelEdge
        v-if="isOpen"
        v-model:width-px="inspectorWidth.widthPx.value"
        v-bind="INSPECTOR_PX"
        class="inspector-edge"
        side="start"
        :label="t('inspector.panelWidth')"
        @reset="inspectorWidth.reset()"
      />
    </template>
  </main>
  <main v-else tabindex="-1"></main>
</template>

<style>
.build {
  --rail: var(--scenes-px);
  --inspector: var(--inspector-px);
  /* What the picture leaves below it, within reason. */
  --band: clamp(100px, calc(100vh - 62px - (100vw - var(--rail) - var(--inspector) - 20px) * 0.5625), 140px);
  position: relative;
  display: grid;
  min-height: 0;
  grid-template: 'scenes stage inspector' minmax(0, 1fr) 'scenes depth inspector' var(--band) / var(--rail) minmax(0, 1fr) var(--inspector);
}
.build.is-folded {
  --inspector: 0px;
}
.build.is-narrow {
  --inspector: 0px;
}
.build-scenes {
  grid-area: scenes;
}
.build-stage {
  grid-area: stage;
}
.build-depth {
  grid-area: depth;
}
.build-inspector {
  margin-block-start: var(--notice-height, 0px);
  grid-area: inspector;
}
.build.is-narrow .build-inspector {
  position: absolute;
  z-index: 20;
  inset-block: 0 var(--band);
  inset-inline-end: 0;
  width: var(--inspector-px);
  background: var(--paper);
  box-shadow: -8px 0 24px #0000003d;
}
.scenes-edge {
  inset-inline-start: calc(var(--scenes-px) - 5px);
}
.inspector-edge {
  inset-inline-end: calc(var(--inspector-px) - 5px);
}
.build.is-narrow .inspector-edge {
  z-index: 21;
  inset-block-end: var(--band);
}
@media (max-width: 819px), (max-height: 519px) {
  .build,
  .build.is-folded {
    --band: 112px;
    grid-template: 'stage' auto 'depth' auto 'scenes' auto 'inspector' auto / minmax(0, 1fr);
  }
  .build .build-inspector {
    border-inline-start: 0;
  }
}
</style>
