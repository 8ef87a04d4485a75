<script setup lang="ts">
import { computed, onBeforeUnmount, watch } from 'vue'
import { useEngineStore } from '../engine/engine.store.ts'
import { useOpenShow } from '../show/use-open-show.ts'
import { useShowStore } from '../show/show.store.ts'
import BenchPicture from './BenchPicture.vue'
import { useBenchStore } from './bench.store.ts'
import ChainPanel from './ChainPanel.vue'
import InputList from './InputList.vue'
import ScopeStrip from './scopes/ScopeStrip.vue'

const props = defineProps<{ showId: string; inputId?: string }>()
const showStore = useShowStore()
const engine = useEngineStore()
const bench = useBenchStore()
useOpenShow(() => props.showId)

/** Inputs with a picture to clean up; colours have none. */
const inputs = computed(() => (showStore.show?.inputs ?? []).filter((input) => input.kind !== 'colour'))
const input = computed(() => inputs.value.find((candidate) => candidate.id === props.inputId) ?? inputs.value[0] ?? null)

watch(
  () => input.value?.id ?? null,
  (inputId) => {
    bench.inputId = inputId
    bench.layer = null
  },
  { immediate: true },
)
watch([() => bench.inputId, () => bench.layer], ([inputId, layer]) => engine.watchScopes(inputId, layer), { immediate: true })
onBeforeUnmount(() => engine.watchScopes(null, null))
</script>

<template>
  <main v-if="showStore.show" class="grid min-h-0 grid-cols-[184px_minmax(0,1fr)_318px]">
    <InputList class="border-r border-line" :inputs="inputs" :selected-id="input?.id ?? null" />
    <div class="grid min-h-0 min-w-0 grid-rows-[minmax(0,1fr)_auto]">
      <BenchPicture :key="input?.id" :input="input" />
      <ScopeStrip v-if="input" :scopes="engine.scopes" />
    </div>
    <ChainPanel class="border-l border-line" :input="input" />
  </main>
  <main v-else></main>
</template>
