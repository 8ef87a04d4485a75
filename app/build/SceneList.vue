<script setup lang="ts">
import { Copy, Ellipsis, MoveDown, MoveUp, Pencil, Plus, Radio, Trash2 } from 'lucide-vue-next'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { VueDraggable } from 'vue-draggable-plus'
import { addScene, moveScene, removeScene, updateScene } from '../../core/show/edits.ts'
import { copyScene, newScene } from '../../core/show/create.ts'
import type { Scene } from '../../core/show/show.ts'
import ActionMenu, { type MenuAction } from '../base/ActionMenu.vue'
import IconButton from '../base/IconButton.vue'
import InlineName from '../base/InlineName.vue'
import { useEngineStore } from '../engine/engine.store.ts'
import LivePicture from '../live-picture/LivePicture.vue'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'

const { t } = useI18n()
const showStore = useShowStore()
const engine = useEngineStore()
const renamingId = ref<string | null>(null)
const scenes = computed(() => showStore.show?.scenes ?? [])
const thumb = computed(() => {
  const canvas = showStore.show!.canvas
  return { widthPx: 288, heightPx: Math.round((288 * canvas.heightPx) / canvas.widthPx) }
})

function add(): void {
  const scene = newScene(t('build.sceneName', { n: scenes.value.length + 1 }), makeId)
  showStore.edit(t('edits.addScene'), (show) => addScene(show, scene))
  showStore.selectScene(scene.id)
}

function duplicate(scene: Scene, index: number): void {
  const copy = copyScene(scene, t('build.copyName', { name: scene.name }).slice(0, 80), makeId)
  showStore.edit(t('edits.duplicate'), (show) => addScene(show, copy, index + 1))
  showStore.selectScene(copy.id)
}

function move(sceneId: string, index: number): void {
  showStore.edit(t('edits.moveScene'), (show) => moveScene(show, sceneId, index))
}

function onDrop(event: { oldIndex?: number | undefined; newIndex?: number | undefined }): void {
  const scene = scenes.value[event.oldIndex ?? -1]
  if (scene !== undefined && event.newIndex !== undefined && event.newIndex !== event.oldIndex) move(scene.id, event.newIndex)
}

function actionsOf(scene: Scene, index: number): MenuAction[] {
  return [
    { label: t('build.putOnAir'), icon: Radio, disabled: scene.id === showStore.onAirId, run: () => showStore.setOnAir(scene.id) },
    { label: t('build.duplicate'), icon: Copy, run: () => duplicate(scene, index) },
    { label: t('build.rename'), icon: Pencil, run: () => (renamingId.value = scene.id) },
    { label: t('build.moveUp'), icon: MoveUp, disabled: index === 0, run: () => move(scene.id, index - 1) },
    { label: t('build.moveDown'), icon: MoveDown, disabled: index === scenes.value.length - 1, run: () => move(scene.id, index + 1) },
    {
      label: scenes.value.length === 1 ? t('build.lastScene') : t('build.delete'),
      icon: Trash2,
      disabled: scenes.value.length === 1,
      run: () => showStore.edit(t('edits.removeScene'), (show) => removeScene(show, scene.id)),
    },
  ]
}

function rename(scene: Scene, name: string): void {
  showStore.edit(t('edits.rename'), (show) => updateScene(show, scene.id, (current) => ({ ...current, name })))
}

function onKey(event: KeyboardEvent, scene: Scene, index: number): void {
  if (event.key === 'Enter' || event.key === ' ') showStore.selectScene(scene.id)
  else if (event.altKey && event.key === 'ArrowUp') move(scene.id, index - 1)
  else if (event.altKey && event.key === 'ArrowDown') move(scene.id, index + 1)
  else return
  event.preventDefault()
}
</script>

<template>
  <aside class="flex min-h-0 flex-col">
    <div class="flex items-center justify-between py-2.5 pr-2 pl-3.5">
      <h2 class="font-head text-[16px] font-bold">{{ t('build.scenes') }}</h2>
      <IconButton :icon="Plus" :label="t('build.addScene')" @click="add" />
    </div>
    <VueDraggable
      :model-value="[...scenes]"
      tag="ol"
      class="min-h-0 flex-1 overflow-y-auto px-3 pb-3"
      :animation="150"
      :delay="120"
      :delay-on-touch-only="true"
      filter="input,button"
      :prevent-on-filter="false"
      @end="onDrop"
    >
      <li
        v-for="(scene, index) in scenes"
        :key="scene.id"
        class="group mb-2.5 cursor-pointer rounded-lg border p-1"
        :class="scene.id === showStore.sceneId ? 'border-brass bg-wash' : 'border-transparent hover:bg-sunk'"
        tabindex="0"
        role="button"
        :aria-label="scene.name"
        :aria-current="scene.id === showStore.sceneId ? 'true' : undefined"
        @click="showStore.selectScene(scene.id)"
        @keydown.self="onKey($event, scene, index)"
      >
        <div class="relative">
          <LivePicture
            class="aspect-video overflow-hidden rounded-[5px] bg-well"
            :request="{ kind: 'scene', sceneId: scene.id, isSmall: true }"
            :width-px="thumb.widthPx"
            :height-px="thumb.heightPx"
            :label="scene.name"
          />
          <span
            v-if="engine.isFeedOn && scene.id === showStore.onAirId"
            class="absolute top-1.5 left-1.5 rounded bg-[#b83425] px-1.5 py-px text-[11px] font-semibold text-white"
          >
            {{ t('build.onAir') }}
          </span>
        </div>
        <div class="flex items-center gap-1 pt-1 pl-1">
          <div class="min-w-0 flex-1 font-medium">
            <InlineName
              :model-value="scene.name"
              :label="t('build.rename')"
              :is-editing="renamingId === scene.id"
              @update:model-value="rename(scene, $event)"
              @done="renamingId = null"
            />
          </div>
          <ActionMenu :actions="actionsOf(scene, index)" :label="t('build.sceneMenu', { name: scene.name })" is-icon class="shrink-0" @click.stop>
            <Ellipsis :size="16" aria-hidden="true" />
          </ActionMenu>
        </div>
      </li>
    </VueDraggable>
  </aside>
</template>
