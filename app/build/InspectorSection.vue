<script setup lang="ts">
defineProps<{ title: string }>()
</script>

<template>
  <section class="mt-3 border-t border-line pt-3">
    <div class="mb-2 flex items-center justify-between gap-2">
      <h3 class="text-[12.5px] font-semibold text-soft">{{ title }}</h3>
      <slot name="aside" />
    </div>
    <slot />
  </section>
</template>
