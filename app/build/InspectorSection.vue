<script setup lang="ts">
// A part of the inspector that folds, and stays as it was left.
import { ChevronDown } from 'lucide-vue-next'
import { useId } from 'vue'
import { isFolded, toggleSection } from './folded-sections.ts'

const props = defineProps<{
  title: string
  /** Under what it is remembered whether it is folded. */
  name: string
}>()
const id = useId()
</script>

<template>
  <section class="mt-2 border-t border-line pt-1.5">
    <div class="flex min-h-7 items-center justify-between gap-2">
      <h3 class="min-w-0">
        <button
          type="button"
          class="flex min-h-6 max-w-full items-center gap-1 rounded pe-1 text-start text-[12.5px] leading-tight font-semibold text-soft hover:text-ink"
          :aria-expanded="!isFolded(props.name)"
          :aria-controls="id"
          @click="toggleSection(props.name)"
        >
          <ChevronDown :size="13" class="shrink-0 transition-transform duration-150" :class="isFolded(props.name) ? '-rotate-90' : ''" aria-hidden="true" />
          {{ title }}
        </button>
      </h3>
      <slot v-if="!isFolded(props.name)" name="aside" />
    </div>
    <div v-show="!isFolded(props.name)" :id="id" class="mt-1 mb-1.5">
      <slot />
    </div>
  </section>
</template>
