<script setup lang="ts">
// A still of what a version changed: the scene that is not as it was in the version before, else the first.
import { useElementVisibility, whenever } from '@vueuse/core'
import { ref, shallowRef, useTemplateRef } from 'vue'
import type { Scene, Show } from '../../core/show/show.ts'
import { api } from '../show/api.ts'
import ShowCover from './ShowCover.vue'

const props = defineProps<{ showId: string; revision: number; before: number | null }>()
/** Sharp where a pixel of the page is two of the screen. */
const WIDTH_PX = 192

const place = useTemplateRef<HTMLDivElement>('place')
const isSeen = useElementVisibility(place)
const cover = shallowRef<{ readonly show: Show; readonly scene: Scene } | null>(null)
const isAsked = ref(false)

/** Versions are read when they come into view: a list may be long. */
whenever(
  isSeen,
  () => {
    if (isAsked.value) return
    isAsked.value = true
    void load()
  },
  { immediate: true },
)

async function load(): Promise<void> {
  try {
    const [show, before] = await Promise.all([read(props.revision), props.before === null ? null : read(props.before)])
    const was = (scene: Scene) => JSON.stringify(before?.scenes.find(({ id }) => id === scene.id))
    const changed = before === null ? undefined : show.scenes.find((scene) => JSON.stringify(scene) !== was(scene))
    cover.value = { show, scene: changed ?? show.scenes[0]! }
  } catch {
    // Without a picture the list still tells what and when; it is asked for again when the list is opened anew.
    isAsked.value = false
  }
}

function read(revision: number): Promise<Show> {
  return api.getVersion(props.showId, revision)
}
</script>

<template>
  <div ref="place" class="w-24 shrink-0 overflow-hidden rounded-md border border-line bg-well">
    <ShowCover v-if="cover !== null" :show="cover.show" :scene="cover.scene" :width-px="WIDTH_PX" />
    <div v-else class="aspect-video"></div>
  </div>
</template>
