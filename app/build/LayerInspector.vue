<script setup lang="ts">
import { inputKindOf } from '../../core/inputs/index.ts'
import { inputOf, inputIdOf } from '../../core/layers/index.ts'
import { ChevronLeft, Ellipsis, Eye, EyeOff, Lock, LockOpen, Pencil } from 'lucide-vue-next'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { canBePage } from '../../core/layout/inside-page.ts'
import { layersOf } from '../../core/layers/tree.ts'
import { updateLayer } from '../../core/show/edits.ts'
import { setVisible } from '../../core/show/visibility.ts'
import type { Layer } from '../../core/show/show.ts'
import ActionMenu, { type MenuAction } from '../base/ActionMenu.vue'
import IconButton from '../base/IconButton.vue'
import InlineName from '../base/InlineName.vue'
import GraphicSection from '../graphics/GraphicSection.vue'
import { useShowStore } from '../show/show.store.ts'
import CleanUpSection from './CleanUpSection.vue'
import { inputFaceOf } from '../kinds/inputs/index.ts'
import { layerFaceOf } from '../kinds/layers/index.ts'
import FrameSection from './FrameSection.vue'
import InsideSection from './InsideSection.vue'
import ManyLayers from './ManyLayers.vue'
import MotionSection from './MotionSection.vue'
import PlaceSection from './PlaceSection.vue'
import SceneSection from './SceneSection.vue'
import UnseenNote from './UnseenNote.vue'
import { useLayerMenu } from './use-layer-menu.ts'

const emit = defineEmits<{ close: [] }>()
const { t } = useI18n()
const showStore = useShowStore()
const isRenaming = ref(false)
const menu = useLayerMenu()
const actions = computed<MenuAction[]>(() => [
  { label: t('layer.name'), icon: Pencil, disabled: showStore.scene?.locked === true, run: () => (isRenaming.value = true) },
  ...menu.value,
])
const layer = computed(() => showStore.layer)
const group = computed(() => showStore.openGroups.at(-1) ?? null)
const input = computed(() => (showStore.show === null ? undefined : inputOf(showStore.show, layer.value ?? undefined)))
const about = computed(() => {
  const held = layer.value === null ? null : layerFaceOf(layer.value).holds(layer.value)
  if (held !== null) return t('layer.groupOf', held)
  const kind = t(`layer.kinds.${input.value?.kind ?? nameOfKind(layer.value)}`)
  if (input.value === undefined) return kind
  const id = input.value.id
  const count = showStore.show!.scenes.filter((scene) => layersOf(scene).some((candidate) => inputIdOf(candidate) === id)).length
  return `${kind}, ${t('layer.usedIn', count)}`
})

/** Name of the kind for layers that show no input. */
function nameOfKind(current: Layer | null): string {
  return current === null || inputIdOf(current) !== null ? 'picture' : current.kind
}

const layerSection = computed(() => (layer.value === null ? null : layerFaceOf(layer.value).section))
const inputSection = computed(() => (input.value === undefined ? null : inputFaceOf(input.value).section))

function change(label: string, part: (layer: Layer) => Layer): void {
  const { sceneId, layerId } = showStore
  if (sceneId !== null && layerId !== null) showStore.edit(label, (show) => updateLayer(show, sceneId, layerId, part))
}

function toggleVisible(): void {
  const { sceneId, layer: shown } = showStore
  if (sceneId === null || shown === null) return
  showStore.edit(t('edits.showLayer', { name: shown.name }), (show) => setVisible(show, sceneId, [shown.id], !shown.visible))
}
</script>

<template>
  <aside class="@container min-h-0 min-w-0 overflow-y-auto px-2.5 py-2" :aria-label="t('inspector.title')" @keydown.escape="emit('close')">
    <template v-if="layer === null">
      <GraphicSection v-if="showStore.scene?.graphic" :key="showStore.scene.id" :graphic="showStore.scene" />
      <SceneSection v-else-if="showStore.scene" :key="`scene-${showStore.scene.id}`" :scene="showStore.scene" />
    </template>
    <ManyLayers v-else-if="showStore.selectedLayers.length > 1" :layers="showStore.selectedLayers" />
    <template v-else>
      <button
        v-if="group"
        type="button"
        class="-ms-1 flex min-h-6 max-w-full items-center gap-0.5 rounded px-1 text-soft hover:bg-raised hover:text-ink"
        :title="t('layer.leaveGroup')"
        @click="showStore.leaveGroup()"
      >
        <ChevronLeft :size="13" class="shrink-0 rtl:-scale-x-100" aria-hidden="true" /><span class="truncate">{{
          t('layer.inside', { name: group.name })
        }}</span>
      </button>
      <div class="flex items-center gap-0.5">
        <h2 class="min-w-0 flex-1 font-head text-[15px] font-bold" @dblclick="isRenaming = true">
          <InlineName
            :model-value="layer.name"
            :label="t('layer.name')"
            :is-editing="isRenaming"
            @update:model-value="(name) => change(t('edits.rename', { name: layer!.name }), (current) => ({ ...current, name }))"
            @done="isRenaming = false"
          />
        </h2>
        <IconButton :icon="layer.visible ? Eye : EyeOff" size="small" :label="layer.visible ? t('layer.hide') : t('layer.show')" @click="toggleVisible" />
        <IconButton
          :icon="layer.locked ? Lock : LockOpen"
          size="small"
          :label="layer.locked ? t('layer.unlock') : t('layer.lock')"
          :is-on="layer.locked"
          @click="change(t('edits.lockLayer', { name: layer!.name }), (current) => ({ ...current, locked: !current.locked }))"
        />
        <ActionMenu :actions="actions" :label="t('layer.more', { name: layer.name })" align="right" is-icon>
          <Ellipsis :size="16" aria-hidden="true" />
        </ActionMenu>
      </div>
      <p class="text-soft">{{ about }}</p>
      <UnseenNote :layer="layer" />
      <component :is="layerSection" v-if="layerSection" :key="layer.id" :layer="layer" />
      <component :is="inputSection" v-if="inputSection" :key="input?.id" :input="input" />
      <CleanUpSection v-if="input && inputKindOf(input).hasPicture" :key="`clean-${layer.id}`" :input="input" :layer-id="layer.id" :here="layer.treatment" />
      <InsideSection v-if="!group && (layer.part === 'ink' || canBePage(showStore.show!, layer))" />
      <PlaceSection :layer="layer" />
      <FrameSection :layer="layer" />
      <MotionSection v-if="!group" :layer="layer" />
    </template>
  </aside>
</template>
