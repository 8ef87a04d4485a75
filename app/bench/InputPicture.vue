<script setup lang="ts">
// The small picture of an input in the list. It is made, and its camera awake, only while it can be seen there.
import { useElementVisibility } from '@vueuse/core'
import { onBeforeUnmount, useTemplateRef, watch } from 'vue'
import LivePicture from '../live-picture/LivePicture.vue'

const props = defineProps<{ inputId: string; list: HTMLElement | null }>()
const emit = defineEmits<{ seen: [isSeen: boolean] }>()
const SIZE = { widthPx: 288, heightPx: 162 }
/** A picture begins a little before it comes into view. */
const AHEAD = '160px'
const place = useTemplateRef<HTMLElement>('place')
const isSeen = useElementVisibility(place, { rootMargin: AHEAD, scrollTarget: () => props.list })

watch(isSeen, (is) => emit('seen', is))
onBeforeUnmount(() => emit('seen', false))
</script>

<template>
  <div ref="place" class="aspect-video overflow-hidden rounded-[5px] bg-well">
    <LivePicture
      v-if="isSeen"
      :request="{ kind: 'input', inputId, stage: 'before', isSmall: true }"
      :width-px="SIZE.widthPx"
      :height-px="SIZE.heightPx"
      label=""
    />
  </div>
</template>
