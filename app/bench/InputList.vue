<script setup lang="ts">
import { inputIdOf } from '../../core/layers/index.ts'
import { inputFaceOf } from '../kinds/inputs/index.ts'
import { newCamera } from '../../core/inputs/camera.ts'
import { Camera, Ellipsis, Pencil, Plus, Trash2, Video } from 'lucide-vue-next'
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { RouterLink, useRouter } from 'vue-router'
import { toast } from 'vue-sonner'
import { TIME_TO_ACT_MS } from '../shell/announce.ts'
import { layersOf } from '../../core/layers/tree.ts'
import { addInput, countOfKind, removeInput, updateInput } from '../../core/show/edits.ts'
import { standinCameras, type CameraInput, type Input } from '../../core/show/show.ts'
import ActionMenu, { type MenuAction } from '../base/ActionMenu.vue'
import AskDialog from '../base/AskDialog.vue'
import InlineName from '../base/InlineName.vue'
import { useEngineStore } from '../engine/engine.store.ts'
import { useInputsStore } from '../inputs/inputs.store.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import { useDevices } from '../devices/use-devices.ts'
import InputPicture from './InputPicture.vue'

defineProps<{ inputs: readonly Input[]; selectedId: string | null }>()
const { t } = useI18n()
const router = useRouter()
const showStore = useShowStore()
const engine = useEngineStore()
const inputsStore = useInputsStore()
const { cameras, needsPermission, ask } = useDevices()
const list = useTemplateRef<HTMLElement>('list')
const emit = defineEmits<{ seen: [inputIds: readonly string[]] }>()
/** Inputs whose pictures can be seen in the list. */
const seenIds = new Set<string>()
const renamingId = ref<string | null>(null)
const removing = ref<Input | null>(null)

function noteSeen(inputId: string, isSeen: boolean): void {
  if (isSeen) seenIds.add(inputId)
  else seenIds.delete(inputId)
  emit('seen', [...seenIds])
}

function stateOf(input: Input): string {
  const info = engine.infos.get(`input:${input.id}`)
  const size = info === undefined ? '' : ` · ${info.widthPx}×${info.heightPx}`
  const { words, hasSize } = inputFaceOf(input).state(input, inputsStore)
  return hasSize ? `${t(words)}${size}` : t(words)
}

/** Scenes that show an input. */
const scenesOf = (input: Input) => (showStore.show?.scenes ?? []).filter((scene) => layersOf(scene).some((layer) => inputIdOf(layer) === input.id))
const removalWords = computed(() => {
  const scenes = removing.value === null ? [] : scenesOf(removing.value)
  return scenes.length === 0 ? t('bench.unused') : t('bench.usedIn', { scenes: scenes.map((scene) => scene.name).join(', ') })
})

function add(device: CameraInput['device']): void {
  const { canvas, inputs } = showStore.show!
  const camera = newCamera(`${t('build.newCameraName')} ${countOfKind(inputs, 'camera') + 1}`, device, canvas, makeId)
  if (!showStore.edit(t('edits.addInput', { name: camera.name }), (show) => addInput(show, camera))) return
  void router.push({ name: 'bench', params: { showId: showStore.showId!, inputId: camera.id } })
}

const addActions = computed<MenuAction[]>(() => [
  ...cameras.value.map((camera, i) => ({
    label: camera.label || t('build.addCamera'),
    icon: Camera,
    ...(i === 0 ? { group: t('bench.realCameras') } : {}),
    run: () => add({ type: 'device', deviceId: camera.deviceId, label: camera.label.slice(0, 200) }),
  })),
  ...(needsPermission.value ? [{ label: t('camera.allow'), icon: Camera, run: () => void ask() }] : []),
  ...standinCameras.map((standin, i) => ({
    label: t(`standins.${standin}`),
    icon: Video,
    ...(i === 0 ? { group: t('bench.standins') } : {}),
    run: () => add({ type: 'standin', standin }),
  })),
])

function actionsOf(input: Input): MenuAction[] {
  return [
    { label: t('bench.renameInput'), icon: Pencil, run: () => (renamingId.value = input.id) },
    { label: t('bench.removeInput'), icon: Trash2, run: () => (removing.value = input) },
  ]
}

function rename(input: Input, name: string): void {
  showStore.edit(t('edits.rename', { name: input.name }), (show) => updateInput(show, input.id, (current) => ({ ...current, name })))
}

async function remove(): Promise<void> {
  const input = removing.value
  removing.value = null
  if (input === null) return
  if (!showStore.edit(t('edits.removeInput', { name: input.name }), (show) => removeInput(show, input.id))) return
  toast(t('layer.removed', { name: input.name }), { duration: TIME_TO_ACT_MS, action: { label: t('header.undoShort'), onClick: () => showStore.undo() } })
  await nextTick()
  void router.replace({ name: 'bench', params: { showId: showStore.showId! } })
}
</script>

<template>
  <aside class="flex min-h-0 min-w-0 flex-col" :aria-label="t('bench.inputs')">
    <div class="flex items-center justify-between pt-1.5 pe-1 ps-3">
      <h2 class="font-head text-[15px] font-bold">{{ t('bench.inputs') }}</h2>
      <ActionMenu :actions="addActions" :label="t('bench.addInput')" is-icon is-wide><Plus :size="16" aria-hidden="true" /></ActionMenu>
    </div>
    <ul ref="list" class="input-list min-h-0 flex-1 overflow-y-auto px-2 pb-2">
      <li v-for="input in inputs" :key="input.id" class="relative mb-1.5">
        <RouterLink
          :to="{ name: 'bench', params: { showId: showStore.showId!, inputId: input.id } }"
          class="block rounded-lg border p-1"
          :class="input.id === selectedId ? 'border-brass bg-wash' : 'border-transparent hover:bg-sunk'"
          :aria-current="input.id === selectedId ? 'true' : undefined"
          @dblclick="renamingId = input.id"
        >
          <InputPicture :input-id="input.id" :list="list" @seen="noteSeen(input.id, $event)" />
          <span class="block px-1 pt-1 pb-0.5">
            <span class="block pe-6"
              ><span dir="auto" class="block truncate font-medium" :class="renamingId === input.id ? 'invisible' : ''" :title="input.name">{{
                input.name
              }}</span></span
            >
            <span class="block font-num text-[11px] leading-snug text-soft tabular-nums">{{ stateOf(input) }}</span>
          </span>
        </RouterLink>
        <div v-if="renamingId === input.id" class="absolute inset-x-1.5 bottom-[22px]">
          <InlineName
            :model-value="input.name"
            :label="t('bench.renameInput')"
            is-editing
            @update:model-value="rename(input, $event)"
            @done="renamingId = null"
          />
        </div>
        <ActionMenu :actions="actionsOf(input)" :label="t('bench.inputMenu', { name: input.name })" is-icon data-over-card class="absolute end-0.5 bottom-3.5">
          <Ellipsis :size="16" aria-hidden="true" />
        </ActionMenu>
      </li>
    </ul>
    <AskDialog
      :is-open="removing !== null"
      :title="t('bench.removeTitle', { name: removing?.name ?? '' })"
      :text="removalWords"
      :act="t('bench.removeInput')"
      :keep="t('bench.keepInput')"
      @act="remove"
      @close="removing = null"
    />
  </aside>
</template>

<style scoped>
@media (max-width: 819px), (max-height: 519px) {
  .input-list {
    display: flex;
    gap: 6px;
    overflow: auto hidden;
  }
  .input-list > li {
    width: 150px;
    flex: none;
  }
}
</style>
