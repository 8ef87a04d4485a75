<script setup lang="ts">
import { inputIdOf } from '../../core/layers/index.ts'
import { inputKindOf } from '../../core/inputs/index.ts'
import { newCamera } from '../../core/inputs/camera.ts'
import { computed, onBeforeUnmount, shallowRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { layersOf } from '../../core/layers/tree.ts'
import { addInput } from '../../core/show/edits.ts'
import { useInputsStore } from '../inputs/inputs.store.ts'
import { useFiguresStore } from '../engine/figures.store.ts'
import { makeId } from '../show/make-id.ts'
import { useOpenShow } from '../show/use-open-show.ts'
import { useShowStore } from '../show/show.store.ts'
import BenchPicture from './BenchPicture.vue'
import { useBenchStore } from './bench.store.ts'
import ChainPanel from './ChainPanel.vue'
import InputList from './InputList.vue'
import ScopeStrip from './scopes/ScopeStrip.vue'

const props = defineProps<{
  showId: string
  inputId?: string
  /** The layer whose own steps a link leads to. */
  sceneId?: string
  layerId?: string
  stepId?: string
}>()
const { t } = useI18n()
const showStore = useShowStore()
const inputsStore = useInputsStore()
const figures = useFiguresStore()
const bench = useBenchStore()
useOpenShow(() => props.showId)

/** Inputs with a picture to clean up; colours have none. */
const inputs = computed(() => (showStore.show?.inputs ?? []).filter((input) => inputKindOf(input).hasPicture))
const input = computed(() => inputs.value.find((candidate) => candidate.id === props.inputId) ?? inputs.value[0] ?? null)

watch(
  [() => input.value?.id ?? null, () => props.layerId],
  ([inputId, layerId]) => {
    bench.inputId = inputId
    const layer = showStore.show?.scenes
      .filter((scene) => scene.id === props.sceneId)
      .flatMap(layersOf)
      .find((candidate) => candidate.id === layerId)
    bench.layer = layer !== undefined && inputIdOf(layer) === inputId ? { sceneId: props.sceneId!, layerId: layer.id } : null
  },
  { immediate: true },
)
watch([() => bench.inputId, () => bench.layer], ([inputId, layer]) => figures.watchScopes(inputId, layer), { immediate: true })
/** The list shows every input, used or not, as far as it is scrolled. */
const seenIds = shallowRef<readonly string[]>([])
watch([() => input.value?.id, seenIds], ([id, seen]) => inputsStore.lookAt(id === undefined ? [...seen] : [id, ...seen]), { immediate: true })
onBeforeUnmount(() => {
  figures.watchScopes(null, null)
  inputsStore.lookAt([])
})

function addCamera(): void {
  const camera = newCamera(t('build.newCameraName'), { type: 'standin', standin: 'cloth' }, showStore.show!.canvas, makeId)
  showStore.edit(t('edits.addInput', { name: camera.name }), (show) => addInput(show, camera))
}

/** The colour of the cloth that is keyed out. */
const cloth = computed(() => {
  const key = input.value?.treatment.find((step) => step.on && step.kind === 'chromaKey')
  return key?.kind === 'chromaKey' ? key.params.colour : null
})
</script>

<template>
  <main v-if="showStore.show" tabindex="-1" class="bench">
    <h1 class="sr-only">{{ t('bench.heading', { show: showStore.show.name }) }}</h1>
    <InputList class="bench-inputs border-e border-line" :inputs="inputs" :selected-id="input?.id ?? null" @seen="seenIds = $event" />
    <div class="bench-picture grid min-h-0 min-w-0 grid-rows-[minmax(0,1fr)_auto]">
      <BenchPicture :key="input?.id" :input="input" @add-camera="addCamera" />
      <ScopeStrip v-if="input" :scopes="figures.scopes" :cloth="cloth" />
    </div>
    <ChainPanel class="bench-chain border-s border-line" :input="input" :step-id="stepId ?? null" />
  </main>
  <main v-else tabindex="-1"></main>
</template>

<style>
.bench {
  display: grid;
  min-height: 0;
  grid-template: 'inputs picture chain' minmax(0, 1fr) / 184px minmax(0, 1fr) clamp(286px, 24.8vw, 400px);
}
.bench-inputs {
  grid-area: inputs;
}
.bench-picture {
  grid-area: picture;
}
.bench-chain {
  margin-block-start: var(--notice-height, 0px);
  grid-area: chain;
}
@media (min-width: 820px) and (max-width: 1179px) {
  .bench {
    grid-template-columns: 132px minmax(0, 1fr) 286px;
  }
}
@media (max-width: 819px), (max-height: 519px) {
  .bench {
    grid-template: 'picture' auto 'chain' auto 'inputs' auto / minmax(0, 1fr);
  }
}
</style>
