<script setup lang="ts">
// A way to show slides, as a small drawing: the page, and who presents.
import { computed } from 'vue'
import type { DeckStyle } from '../../core/decks/deck-scenes.ts'

const props = defineProps<{ look: DeckStyle | 'here'; label: string; isChosen: boolean }>()
const emit = defineEmits<{ toggle: [] }>()

/** The page, and the presenter's head and shoulders in a box: x, y, width, height of 64 × 36. */
const drawings: Record<DeckStyle | 'here', { readonly page: readonly number[]; readonly presenter: readonly number[] | null }> = {
  here: { page: [9, 6, 46, 24], presenter: null },
  shoulder: { page: [4, 5, 26, 17], presenter: [22, 2, 42, 34] },
  third: { page: [0, 0, 42, 36], presenter: [43, 0, 21, 36] },
  inside: { page: [0, 0, 64, 36], presenter: [38, 8, 26, 28] },
  cornerBottom: { page: [0, 0, 64, 36], presenter: [46, 22, 15, 11] },
  whole: { page: [0, 0, 64, 36], presenter: null },
}
const page = computed(() => drawings[props.look].page)
</script>

<template>
  <button
    type="button"
    class="flex min-w-0 items-center gap-2.5 rounded-lg border p-1.5 text-start"
    :class="isChosen ? 'border-brass bg-wash' : 'border-line bg-raised hover:border-soft'"
    :aria-pressed="isChosen"
    @click="emit('toggle')"
  >
    <svg viewBox="0 0 64 36" class="h-9 w-16 shrink-0 rounded bg-[#43524b]" aria-hidden="true" dir="ltr">
      <rect :x="page[0]" :y="page[1]" :width="page[2]" :height="page[3]" fill="#f5f1e8" />
      <path
        v-for="line in 3"
        :key="line"
        :d="`M${page[0]! + 3} ${page[1]! + 2 + line * 4}h${page[2]! * (line === 1 ? 0.4 : 0.3)}`"
        stroke="#1e5b47"
        :stroke-width="line === 1 ? 2 : 1"
      />
      <svg
        v-if="drawings[look].presenter"
        :x="drawings[look].presenter![0]"
        :y="drawings[look].presenter![1]"
        :width="drawings[look].presenter![2]"
        :height="drawings[look].presenter![3]"
        viewBox="0 0 40 40"
        preserveAspectRatio="xMidYMax slice"
      >
        <rect v-if="look === 'third' || look === 'cornerBottom'" width="100%" height="100%" x="0" fill="#7d8f86" />
        <path d="M4 40c2-13 9-15 16-15s14 2 16 15z" fill="#dba233" />
        <circle cx="20" cy="15" r="8.5" fill="#a9714b" />
      </svg>
    </svg>
    <span class="min-w-0 flex-1 leading-tight">{{ label }}</span>
  </button>
</template>
