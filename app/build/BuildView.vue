<script setup lang="ts">
import { useOpenShow } from '../show/use-open-show.ts'
import { useShowStore } from '../show/show.store.ts'
import DepthStrip from './DepthStrip.vue'
import LayerInspector from './LayerInspector.vue'
import SceneList from './SceneList.vue'
import StageArea from './StageArea.vue'

const props = defineProps<{ showId: string }>()
const showStore = useShowStore()
useOpenShow(() => props.showId)
</script>

<template>
  <main v-if="showStore.show" class="grid min-h-0 grid-cols-[184px_minmax(0,1fr)_288px]">
    <SceneList class="border-r border-line" />
    <div class="grid min-h-0 min-w-0 grid-rows-[minmax(0,1fr)_196px]">
      <StageArea />
      <DepthStrip class="border-t border-line" />
    </div>
    <LayerInspector class="border-l border-line" />
  </main>
  <main v-else></main>
</template>
