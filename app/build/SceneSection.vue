<script setup lang="ts">
// The scene on the stage: its lock, its mark, and what the presenter wants to remember.
import { Lock, LockOpen } from 'lucide-vue-next'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { inputIdOf } from '../../core/layers/index.ts'
import { layersOf } from '../../core/layers/tree.ts'
import { updateScene } from '../../core/show/edits.ts'
import { LIMITS } from '../../core/schema/limits.ts'
import { sceneMarks, type Scene, type SceneMark } from '../../core/show/show.ts'
import IconButton from '../base/IconButton.vue'
import BackgroundSection from '../backgrounds/BackgroundSection.vue'
import TransitionSection from '../transitions/TransitionSection.vue'
import { useShowStore } from '../show/show.store.ts'
import DeckNotes from '../decks/DeckNotes.vue'
import { useDecksStore } from '../decks/decks.store.ts'
import InspectorSection from './InspectorSection.vue'
import LayerNames from './LayerNames.vue'
import NextStepNote from './NextStepNote.vue'
import { useSceneActions } from './use-scene-actions.ts'
import { markColours } from './mark-colours.ts'

const props = defineProps<{ scene: Scene }>()
const { t } = useI18n()
const showStore = useShowStore()
const decks = useDecksStore()
const isShownHere = computed(() => layersOf(props.scene).some((layer) => inputIdOf(layer) === decks.current?.deck.id))
const { add } = useSceneActions(ref(null), { onMoved: () => Promise.resolve(), openInspector: () => undefined })

function change(label: string, part: Partial<Scene>, key: string | null = null): void {
  showStore.edit(label, (show) => updateScene(show, props.scene.id, (scene) => ({ ...scene, ...part })), key)
}

function setMark(mark: SceneMark | null): void {
  change(t('edits.markScene', { name: props.scene.name }), { mark })
}
</script>

<template>
  <div class="flex items-center gap-1">
    <h2 dir="auto" class="min-w-0 flex-1 truncate font-head text-[15px] font-bold" :title="scene.name">{{ scene.name }}</h2>
    <IconButton
      :icon="scene.locked ? Lock : LockOpen"
      size="small"
      :label="scene.locked ? t('build.unlockThis') : t('build.lockThis')"
      :is-on="scene.locked"
      @click="change(t('edits.lockScene', { name: scene.name }), { locked: !scene.locked })"
    />
  </div>
  <p class="text-soft">{{ scene.locked ? t('build.isLocked') : t('build.sceneOf', { n: scene.layers.length }, scene.layers.length) }}</p>
  <NextStepNote :scene="scene" @add-scene="add" />
  <template v-if="scene.layers.length > 0">
    <h3 class="mt-3 text-[12.5px] font-semibold text-soft">{{ t('inspector.holds') }}</h3>
    <LayerNames class="mt-1 -ms-1" :layers="scene.layers" @choose="showStore.selectLayer($event)" />
  </template>
  <InspectorSection v-if="decks.current && isShownHere" name="deck" :title="decks.current.deck.name">
    <DeckNotes :now="decks.current" />
  </InspectorSection>
  <BackgroundSection />
  <TransitionSection :scene="scene" />
  <p class="mt-3 text-[12.5px] font-semibold text-soft">{{ t('build.mark') }}</p>
  <div class="mt-0.5 -ms-1 flex flex-wrap items-center gap-1" role="radiogroup" :aria-label="t('build.mark')">
    <button
      v-for="mark in [null, ...sceneMarks]"
      :key="mark ?? 'none'"
      type="button"
      role="radio"
      class="size-6 shrink-0 rounded-full border-2"
      :class="scene.mark === mark ? 'border-ink' : 'border-transparent'"
      :aria-checked="scene.mark === mark"
      :aria-label="mark === null ? t('build.noMark') : t(`build.marks.${mark}`)"
      :title="mark === null ? t('build.noMark') : t(`build.marks.${mark}`)"
      @click="setMark(mark)"
    >
      <span
        class="mx-auto block size-4 rounded-full border border-line"
        :style="mark === null ? {} : { background: markColours[mark], borderColor: 'transparent' }"
      ></span>
    </button>
  </div>
  <label class="mt-3 block text-[12.5px] font-semibold text-soft">
    {{ t('build.notes') }}
    <textarea
      :value="scene.notes"
      :maxlength="LIMITS.notesLength"
      rows="3"
      class="field-sizing-content mt-1 max-h-56 min-h-16 w-full resize-none rounded-md border border-line bg-raised px-2 py-1.5 text-[13px] font-normal text-ink"
      :placeholder="t('build.notesHint')"
      @input="change(t('edits.notes', { name: scene.name }), { notes: ($event.target as HTMLTextAreaElement).value }, `notes-${scene.id}`)"
    ></textarea>
  </label>
</template>
