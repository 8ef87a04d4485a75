<script setup lang="ts">
import { Plus } from 'lucide-vue-next'
import { useI18n } from 'vue-i18n'
import { RouterLink, useRouter } from 'vue-router'
import { addInput, countOfKind } from '../../core/show/edits.ts'
import { newCamera } from '../../core/show/create.ts'
import type { Input } from '../../core/show/show.ts'
import IconButton from '../base/IconButton.vue'
import { useEngineStore } from '../engine/engine.store.ts'
import LivePicture from '../live-picture/LivePicture.vue'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'

defineProps<{ inputs: readonly Input[]; selectedId: string | null }>()
const { t } = useI18n()
const router = useRouter()
const showStore = useShowStore()
const engine = useEngineStore()
const THUMB = { widthPx: 288, heightPx: 162 }

function stateOf(input: Input): string {
  const info = engine.infos.get(`input:${input.id}`)
  const size = info === undefined ? '' : ` · ${info.widthPx}×${info.heightPx}`
  if (input.kind !== 'camera') return `${t('bench.still')}${size}`
  const state = engine.cameraStates[input.id] ?? 'starting'
  return state === 'live' ? `${t('bench.live')}${size}` : t(`camera.${state}`)
}

function add(): void {
  const { canvas, inputs } = showStore.show!
  const camera = newCamera(`${t('build.newCameraName')} ${countOfKind(inputs, 'camera') + 1}`, { type: 'standin', standin: 'cloth' }, canvas, makeId)
  showStore.edit(t('edits.addLayer'), (show) => addInput(show, camera))
  void router.push({ name: 'bench', params: { showId: showStore.showId!, inputId: camera.id } })
}
</script>

<template>
  <aside class="flex min-h-0 flex-col">
    <div class="flex items-center justify-between py-2.5 pr-2 pl-3.5">
      <h2 class="font-head text-[16px] font-bold">{{ t('bench.inputs') }}</h2>
      <IconButton :icon="Plus" :label="t('bench.addInput')" @click="add" />
    </div>
    <ul class="min-h-0 flex-1 overflow-y-auto px-3 pb-3">
      <li v-for="input in inputs" :key="input.id">
        <RouterLink
          :to="{ name: 'bench', params: { showId: showStore.showId!, inputId: input.id } }"
          class="mb-2.5 block rounded-lg border p-1"
          :class="input.id === selectedId ? 'border-brass bg-wash' : 'border-transparent hover:bg-sunk'"
          :aria-current="input.id === selectedId ? 'true' : undefined"
        >
          <LivePicture
            class="aspect-video overflow-hidden rounded-[5px] bg-well"
            :request="{ kind: 'input', inputId: input.id, stage: 'before', isSmall: true }"
            :width-px="THUMB.widthPx"
            :height-px="THUMB.heightPx"
            :label="input.name"
          />
          <div class="px-1 pt-1.5 pb-0.5">
            <div class="truncate font-medium" :title="input.name">{{ input.name }}</div>
            <div class="truncate font-num text-[11px] text-soft tabular-nums">{{ stateOf(input) }}</div>
          </div>
        </RouterLink>
      </li>
    </ul>
  </aside>
</template>
