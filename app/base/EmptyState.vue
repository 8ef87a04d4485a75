<script setup lang="ts">
defineProps<{ title: string; hint: string }>()
</script>

<template>
  <div class="grid justify-items-center gap-1 px-6 py-8 text-center">
    <p class="font-head text-[16px] font-semibold">{{ title }}</p>
    <p class="max-w-64 text-balance opacity-75">{{ hint }}</p>
    <div class="mt-3 flex flex-wrap justify-center gap-2"><slot /></div>
  </div>
</template>
