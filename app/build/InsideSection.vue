<script setup lang="ts">
// Standing inside a page: put there by one press, and how much of the page's ink is in front.
import { BookOpenText } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { RouterLink } from 'vue-router'
import { inkModes, type InkMode } from '../../core/layout/inside-page.ts'
import BaseButton from '../base/BaseButton.vue'
import ChoiceBar from '../base/ChoiceBar.vue'
import { useCommands } from '../commands/use-commands.ts'
import { useShowStore } from '../show/show.store.ts'
import InspectorSection from './InspectorSection.vue'
import { useInsidePage } from './use-inside-page.ts'

const { t } = useI18n()
const showStore = useShowStore()
const { run } = useCommands()
const { canStandIn, mode, setMode, whiteWallOf } = useInsidePage()
const choices = computed(() => inkModes.map((value: InkMode) => ({ value, label: t(`inside.modes.${value}`), detail: t(`inside.modeHints.${value}`) })))
</script>

<template>
  <InspectorSection v-if="mode !== null || canStandIn" name="inside" :title="t('inside.title')">
    <template v-if="mode !== null">
      <p class="mb-1 text-[11.5px] text-soft">{{ t('inside.ink') }}</p>
      <ChoiceBar :model-value="mode" :label="t('inside.ink')" :choices="choices" @update:model-value="setMode" />
      <p class="mt-1.5 leading-snug text-soft">{{ t(`inside.modeHints.${mode}`) }}</p>
      <p v-if="whiteWallOf" class="mt-1.5 leading-snug text-soft">
        {{ t('inside.whiteWall') }}
        <RouterLink class="font-medium text-green hover:underline" :to="{ name: 'bench', params: { showId: showStore.showId!, inputId: whiteWallOf } }">{{
          t('inspector.openBench')
        }}</RouterLink>
      </p>
    </template>
    <template v-else>
      <BaseButton class="w-full" :icon="BookOpenText" @click="run('standInside')">{{ t('commands.does.standInside') }}</BaseButton>
      <p class="mt-1.5 leading-snug text-soft">{{ t('inside.hint') }}</p>
    </template>
  </InspectorSection>
</template>
