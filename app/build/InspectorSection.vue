<script setup lang="ts">
defineProps<{ title: string }>()
</script>

<template>
  <section class="mt-2.5 border-t border-line pt-2.5">
    <div class="mb-2 flex items-center justify-between gap-2">
      <h3 class="text-[12.5px] font-semibold text-soft">{{ title }}</h3>
      <slot name="aside" />
    </div>
    <slot />
  </section>
</template>
