<script setup lang="ts">
// A page as a small picture, from its file.
import type { DeckPage } from '../../core/inputs/deck.ts'

defineProps<{ page: Pick<DeckPage, 'asset'> }>()
</script>

<template>
  <img :src="`/api/assets/${page.asset}`" alt="" loading="lazy" decoding="async" class="rounded border border-line bg-sunk object-contain" />
</template>
