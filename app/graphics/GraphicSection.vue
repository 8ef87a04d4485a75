<script setup lang="ts">
// A graphic as a form: what it says, the key that shows it, and the colours that all graphics share.
import { Copy, Ellipsis, Lock, LockOpen, Save, Trash2 } from 'lucide-vue-next'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { logoOf } from '../../core/graphics/logo.ts'
import { photoOf } from '../../core/graphics/photo.ts'
import { isText, textOf } from '../../core/layers/text.ts'
import { layersOf } from '../../core/layers/tree.ts'
import { LIMITS } from '../../core/schema/limits.ts'
import { setPresenter, updateScene } from '../../core/show/edits.ts'
import type { Scene } from '../../core/show/show.ts'
import { useAirStore } from '../air/air.store.ts'
import ActionMenu, { type MenuAction } from '../base/ActionMenu.vue'
import BaseButton from '../base/BaseButton.vue'
import IconButton from '../base/IconButton.vue'
import InlineName from '../base/InlineName.vue'
import ToggleSwitch from '../base/ToggleSwitch.vue'
import InspectorSection from '../build/InspectorSection.vue'
import LayerNames from '../build/LayerNames.vue'
import { useShowStore } from '../show/show.store.ts'
import KeyField from './KeyField.vue'
import LogoFields from './LogoFields.vue'
import PhotoFields from './PhotoFields.vue'
import StyleFields from './StyleFields.vue'
import { useGraphics } from './use-graphics.ts'
import { useSavedGraphics } from './use-saved-graphics.ts'

const props = defineProps<{ graphic: Scene }>()
const { t } = useI18n()
const showStore = useShowStore()
const air = useAirStore()
const { rename, duplicate, remove, setLine, setKey } = useGraphics()
const { save } = useSavedGraphics()
const isRenaming = ref(false)
const logo = computed(() => logoOf(props.graphic))
const photo = computed(() => photoOf(props.graphic))
const actions = computed<MenuAction[]>(() => [
  { label: t('build.duplicate'), icon: Copy, run: () => duplicate(props.graphic) },
  { label: t('graphics.save'), icon: Save, run: () => void save(props.graphic) },
  { label: t('graphics.delete'), icon: Trash2, run: () => remove(props.graphic) },
])

/** Fields of the show that a line is made of alone: the form asks for what they say. */
const PRESENTER_FIELDS = { '{name}': 'name', '{title}': 'title' } as const

interface Line {
  readonly key: string
  readonly label: string
  readonly value: string
  readonly set: (words: string) => void
}

/** Every line that the graphic says, from top to bottom. */
const lines = computed<Line[]>(() =>
  layersOf(props.graphic)
    .filter(isText)
    .flatMap((layer) => {
      const { blocks } = textOf(showStore.show!, layer)
      return blocks.map((block, index): Line => {
        const key = `${layer.contentId}-${index}`
        const field = PRESENTER_FIELDS[block.text as keyof typeof PRESENTER_FIELDS]
        if (field !== undefined) {
          const set = (words: string) => showStore.edit(t('edits.presenter'), (show) => setPresenter(show, { [field]: words }), `presenter-${field}`)
          return { key, label: t(`inspector.fields.${field}`), value: showStore.show!.presenter[field], set: (words) => void set(words) }
        }
        const label = blocks.length === 1 ? layer.name : t('graphics.line', { name: layer.name, n: index + 1 })
        return { key, label, value: block.text, set: (words) => setLine(props.graphic, layer.contentId, index, words) }
      })
    }),
)
const needsCountdown = computed(() => lines.value.some(({ value }) => value.includes('{countdown}')))

function setCountdown(to: string): void {
  showStore.edit(t('edits.presenter'), (show) => setPresenter(show, { countdownTo: to || null }), 'presenter-countdownTo')
}

function toggleLock(): void {
  showStore.edit(t('edits.lockScene', { name: props.graphic.name }), (show) => updateScene(show, props.graphic.id, (one) => ({ ...one, locked: !one.locked })))
}
const words = (event: Event) => (event.target as HTMLInputElement | HTMLTextAreaElement).value
const FIELD = 'mt-0.5 w-full rounded-md border border-line bg-raised px-2 py-1 text-[13px] font-normal text-ink'
</script>

<template>
  <div class="flex items-center gap-0.5">
    <h2 class="min-w-0 flex-1 font-head text-[15px] font-bold" @dblclick="isRenaming = true">
      <InlineName
        :model-value="graphic.name"
        :label="t('build.rename')"
        :is-editing="isRenaming"
        @update:model-value="rename(graphic, $event)"
        @done="isRenaming = false"
      />
    </h2>
    <IconButton
      :icon="graphic.locked ? Lock : LockOpen"
      size="small"
      :label="graphic.locked ? t('graphics.unlock') : t('graphics.lock')"
      :is-on="graphic.locked"
      @click="toggleLock"
    />
    <ActionMenu :actions="actions" :label="t('layer.more', { name: graphic.name })" align="right" is-icon>
      <Ellipsis :size="16" aria-hidden="true" />
    </ActionMenu>
  </div>
  <div class="mt-2 flex items-center justify-between gap-2">
    <span>{{ t('graphics.over') }}</span>
    <ToggleSwitch
      :model-value="air.graphics.shownIds.has(graphic.id)"
      :label="t('graphics.over')"
      @update:model-value="air.graphics.setShown(graphic.id, $event)"
    />
  </div>
  <KeyField class="mt-1" :model-value="graphic.graphic?.key ?? null" :of="graphic.id" @update:model-value="setKey(graphic, $event)" />
  <LogoFields v-if="logo" :graphic="graphic" :layer="logo" />
  <PhotoFields v-if="photo" :graphic="graphic" :layer="photo" />
  <div v-if="lines.length > 0" class="mt-3 grid gap-2" data-testid="graphic-form">
    <label v-for="line in lines" :key="line.key" class="text-[12.5px] font-semibold text-soft">
      {{ line.label }}
      <textarea
        :value="line.value"
        :maxlength="LIMITS.textLength"
        rows="1"
        dir="auto"
        class="field-sizing-content max-h-40 resize-none"
        :class="FIELD"
        :disabled="graphic.locked"
        @input="line.set(words($event))"
      ></textarea>
    </label>
    <label v-if="needsCountdown" class="text-[12.5px] font-semibold text-soft">
      {{ t('inspector.fields.countdown') }}
      <input type="time" :class="FIELD" :value="showStore.show!.presenter.countdownTo ?? ''" @change="setCountdown(words($event))" />
    </label>
  </div>
  <InspectorSection class="mt-3" name="graphicLayers" :title="t('graphics.holds')">
    <LayerNames :layers="graphic.layers" @choose="showStore.selectLayer($event)" />
  </InspectorSection>
  <InspectorSection name="style" :title="t('graphics.style')"><StyleFields /></InspectorSection>
  <BaseButton class="mt-3" kind="quiet" :icon="Trash2" @click="remove(graphic)">{{ t('graphics.delete') }}</BaseButton>
</template>
