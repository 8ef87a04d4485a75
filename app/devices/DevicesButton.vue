<script setup lang="ts">
// In the header: the way to the devices; while stand-ins are in use and the presenter has devices of their own, the offer to use those.
import { Cable, Sparkles } from 'lucide-vue-next'
import { useI18n } from 'vue-i18n'
import { RouterLink, useRoute } from 'vue-router'
import { toast } from 'vue-sonner'
import { useAirStore } from '../air/air.store.ts'
import { useShowStore } from '../show/show.store.ts'
import { useRealDevices } from './use-real-devices.ts'

const { t } = useI18n()
const route = useRoute()
const showStore = useShowStore()
const air = useAirStore()
const { asked, canAsk, use } = useRealDevices()

async function useOwn(): Promise<void> {
  await use()
  if (asked.value === 'granted') toast(air.isFeedOn ? t('devices.ownOnAir') : t('devices.ownNow'))
  else if (asked.value === 'refused') toast.error(t('devices.refused'), { duration: 12_000 })
  else if (asked.value === 'none') toast.error(t('devices.noneFound'))
}
</script>

<template>
  <button
    v-if="canAsk && route.name !== 'devices' && showStore.show"
    type="button"
    class="inline-flex h-8 items-center gap-1.5 rounded-lg border border-brass px-2 font-medium whitespace-nowrap hover:bg-wash disabled:opacity-45"
    :disabled="asked === 'asking'"
    :aria-label="t('devices.useOwn')"
    :title="t('devices.standinsNow')"
    @click="useOwn"
  >
    <Sparkles :size="15" class="text-brass" aria-hidden="true" />
    <span class="max-[1180px]:sr-only">{{ t('devices.useOwnShort') }}</span>
  </button>
  <RouterLink
    :to="{ name: 'devices', params: { showId: route.params['showId'] as string } }"
    class="inline-grid size-8 shrink-0 place-items-center rounded-md hover:bg-sunk hover:text-ink"
    :class="route.name === 'devices' ? 'bg-wash text-ink' : 'text-soft'"
    :aria-label="t('devices.open')"
    :title="t('devices.open')"
    :aria-current="route.name === 'devices' ? 'page' : undefined"
  >
    <Cable :size="16" :stroke-width="1.8" aria-hidden="true" />
  </RouterLink>
</template>
