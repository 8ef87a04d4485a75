<script setup lang="ts">
// One quiet line with the next sensible step, which can be waved away for good.
import { useLocalStorage } from '@vueuse/core'
import { X } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRouter } from 'vue-router'
import type { Scene } from '../../core/show/show.ts'
import { useAirStore } from '../air/air.store.ts'
import BaseButton from '../base/BaseButton.vue'
import IconButton from '../base/IconButton.vue'
import { useShowStore } from '../show/show.store.ts'
import { nextStepOf, type NextStep } from './next-step.ts'
import { useAddLayer } from './use-add-layer.ts'

const props = defineProps<{ scene: Scene }>()
const emit = defineEmits<{ addScene: [] }>()
const { t } = useI18n()
const router = useRouter()
const showStore = useShowStore()
const air = useAirStore()
const { addText } = useAddLayer()
const stored = useLocalStorage<readonly string[]>('green-room:dismissed-steps', [])
const dismissed = computed(() => (Array.isArray(stored.value) ? stored.value : []))
const next = computed(() =>
  showStore.show === null || props.scene.locked || !showStore.isEditor
    ? null
    : nextStepOf({ show: showStore.show, scene: props.scene, isFeedOn: air.isFeedOn, dismissed: dismissed.value }),
)
const inputName = computed(() => showStore.show?.inputs.find(({ id }) => id === next.value?.inputId)?.name ?? '')

/** The feed has its button in the header. */
const acts: Readonly<Record<Exclude<NextStep, 'feed'>, () => void>> = {
  cleanUp: () => void router.push({ name: 'bench', params: { showId: showStore.showId!, inputId: next.value!.inputId! } }),
  text: () => addText(),
  scene: () => emit('addScene'),
}
</script>

<template>
  <div v-if="next" class="mt-3 rounded-lg border border-line bg-raised py-2 pe-1 ps-3 leading-snug" role="status" data-testid="next-step">
    <div class="flex items-start gap-1">
      <p class="min-w-0 flex-1">
        <b class="font-semibold">{{ t(`nextStep.title.${next.step}`, { name: inputName }) }}</b>
        <span class="block text-soft">{{ t(`nextStep.why.${next.step}`) }}</span>
      </p>
      <IconButton :icon="X" size="small" :label="t('nextStep.dismiss')" @click="stored = [...dismissed, next!.step]" />
    </div>
    <BaseButton v-if="next.step !== 'feed'" class="mt-1.5" @click="acts[next.step]()">{{ t(`nextStep.act.${next.step}`) }}</BaseButton>
  </div>
</template>
