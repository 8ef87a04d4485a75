<script setup lang="ts">
// In the header, while stand-ins are in use and the presenter has devices of their own: the offer to use those. Not on air, where it would change what is seen.
import { Cable } from 'lucide-vue-next'
import { useI18n } from 'vue-i18n'
import { useRoute } from 'vue-router'
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
    v-if="canAsk && !air.isFeedOn && route.name !== 'devices' && showStore.show"
    type="button"
    class="inline-flex h-8 items-center gap-1.5 rounded-lg border border-brass px-2 font-medium whitespace-nowrap hover:bg-wash disabled:opacity-45"
    :disabled="asked === 'asking'"
    :aria-label="t('devices.useOwn')"
    :data-tip="t('devices.standinsNow')"
    @click="useOwn"
  >
    <Cable :size="15" class="text-brass" aria-hidden="true" />
    <span class="max-[1180px]:sr-only">{{ t('devices.useOwnShort') }}</span>
  </button>
</template>
