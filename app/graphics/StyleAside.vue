<script setup lang="ts">
// The colours and typefaces of the show beside a gallery that is drawn in them.
import { useI18n } from 'vue-i18n'
import StyleFields from './StyleFields.vue'

defineProps<{ hint: string }>()
const { t } = useI18n()
</script>

<template>
  <aside class="border-line bg-raised p-4 max-[759px]:border-t min-[760px]:overflow-y-auto min-[760px]:border-s" :aria-label="t('graphics.style')">
    <h3 class="font-head text-[15px] font-bold">{{ t('graphics.style') }}</h3>
    <p class="mb-3 text-[12.5px] leading-snug text-soft">{{ hint }}</p>
    <StyleFields />
  </aside>
</template>
