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
    <DoorOpen :size="18" class="shrink-0 text-brass" aria-hidden="true" />
    <p class="min-w-0 flex-1">
      <b class="font-semibold break-all">{{ name }}</b>
      {{ t('sites.wants') }}
      <span v-if="more > 0" class="text-soft">{{ t('sites.more', more) }}</span>
    </p>
    <div class="flex flex-wrap gap-1.5">
      <BaseButton class="py-0.5!" kind="primary" @click="sites.decideOnce(asking.documentId, true)">{{ t('sites.once') }}</BaseButton>
      <BaseButton class="py-0.5!" @click="sites.decide(asking.origin, 'always')">{{ t('sites.always') }}</BaseButton>
      <BaseButton class="py-0.5!" @click="sites.decideOnce(asking.documentId, false)">{{ t('sites.notNow') }}</BaseButton>
      <BaseButton class="py-0.5!" kind="quiet" @click="sites.decide(asking.origin, 'never')">{{ t('sites.never') }}</BaseButton>
    </div>
  </section>
</template>

<style scoped>
.ask {
  display: flex;
  align-items: center;
  gap: 4px 12px;
  flex-wrap: wrap;
  padding: 5px 12px;
  border-bottom: 1px solid var(--line);
  background: var(--wash);
  box-shadow: inset 3px 0 0 var(--brass);
}
</style>
