<script setup lang="ts">
// A page has opened a device of ours: may it have the picture and the sound? It shows the holding card until it is told.
import { DoorOpen } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import BaseButton from '../base/BaseButton.vue'
import { useSitesStore } from './sites.store.ts'

const { t } = useI18n()
const sites = useSitesStore()
const asking = computed(() => sites.asking[0] ?? null)
/** How a person reads an origin: without the usual scheme. */
const name = computed(() => asking.value?.origin.replace(/^https:\/\//, '') ?? '')
const more = computed(() => sites.asking.length - 1)
</script>

<template>
  <section v-if="asking" role="alert" :aria-label="t('sites.ask', { site: name })" class="ask" data-testid="site-ask">
    <p class="flex gap-2">
      <DoorOpen :size="18" class="shrink-0 text-brass" aria-hidden="true" />
      <span class="min-w-0 flex-1">
        <b class="font-semibold break-all">{{ name }}</b>
        {{ t('sites.wants') }}
        <span v-if="more > 0" class="text-soft">{{ t('sites.more', more) }}</span>
      </span>
    </p>
    <div class="mt-2 grid grid-cols-2 gap-1.5">
      <BaseButton class="px-1! py-1!" kind="primary" @click="sites.decideOnce(asking.documentId, true)">{{ t('sites.once') }}</BaseButton>
      <BaseButton class="px-1! py-1!" @click="sites.decide(asking.origin, 'always')">{{ t('sites.always') }}</BaseButton>
      <BaseButton class="px-1! py-1!" @click="sites.decideOnce(asking.documentId, false)">{{ t('sites.notNow') }}</BaseButton>
      <BaseButton class="px-1! py-1!" kind="quiet" @click="sites.decide(asking.origin, 'never')">{{ t('sites.never') }}</BaseButton>
    </div>
  </section>
</template>

<style scoped>
.ask {
  padding: 10px 12px;
  border: 1px solid var(--line);
  border-radius: 8px;
  background: var(--wash);
  box-shadow:
    inset 3px 0 0 var(--brass),
    0 8px 24px #0000003d;
  line-height: 1.375;
}
</style>
