<script setup lang="ts">
import { computed } from 'vue'
import { useOpenShow } from '../show/use-open-show.ts'
import { useShowStore } from '../show/show.store.ts'
import BenchPicture from './BenchPicture.vue'
import ChainPanel from './ChainPanel.vue'
import InputList from './InputList.vue'

const props = defineProps<{ showId: string; inputId?: string }>()
const showStore = useShowStore()
useOpenShow(() => props.showId)

/** Inputs with a picture to clean up; colours have none. */
const inputs = computed(() => (showStore.show?.inputs ?? []).filter((input) => input.kind !== 'colour'))
const input = computed(() => inputs.value.find((candidate) => candidate.id === props.inputId) ?? inputs.value[0] ?? null)
</script>

<template>
  <main v-if="showStore.show" class="grid min-h-0 grid-cols-[184px_minmax(0,1fr)_318px]">
    <InputList class="border-r border-line" :inputs="inputs" :selected-id="input?.id ?? null" />
    <BenchPicture :key="input?.id" :input="input" />
    <ChainPanel class="border-l border-line" :input="input" />
  </main>
  <main v-else></main>
</template>
