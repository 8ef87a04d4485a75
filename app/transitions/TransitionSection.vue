<script setup lang="ts">
// How the scene on the stage comes on air: always, after one certain scene, and how scenes of this show come by default.
import { Plus, X } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { ownScenesOf } from '../../core/show/edits.ts'
import { setPairTransition, setSceneTransition, setUsualTransition, transitionTo } from '../../core/show/show-transitions.ts'
import type { Scene } from '../../core/show/show.ts'
import type { Transition } from '../../core/transitions/index.ts'
import { useAirStore } from '../air/air.store.ts'
import ActionMenu from '../base/ActionMenu.vue'
import IconButton from '../base/IconButton.vue'
import InspectorSection from '../build/InspectorSection.vue'
import { playTransition } from '../build/stage/stage-cue.ts'
import { useShowStore } from '../show/show.store.ts'
import TransitionFields from './TransitionFields.vue'

const props = defineProps<{ scene: Scene }>()
const { t } = useI18n()
const showStore = useShowStore()
const air = useAirStore()
const scenes = computed(() => ownScenesOf(showStore.show!))
const others = computed(() => scenes.value.filter(({ id }) => id !== props.scene.id))
const transitions = computed(() => showStore.show!.transitions)
const pairs = computed(() =>
  transitions.value.pairs.flatMap(({ fromId, toId, transition }) => {
    const from = toId === props.scene.id ? scenes.value.find(({ id }) => id === fromId) : undefined
    return from === undefined ? [] : [{ from, transition }]
  }),
)
/** The scene that a preview begins with: the one on air, else the one before. */
const before = computed(() => {
  const onAir = others.value.find(({ id }) => id === (air.onAirId ?? showStore.onAirId))
  return onAir ?? scenes.value[scenes.value.findIndex(({ id }) => id === props.scene.id) - 1] ?? others.value[0] ?? null
})
const usualName = computed(() => t('transitions.asUsual', { name: t(`transitions.kinds.${transitions.value.usual.kind}`) }))
const isStopped = computed(() => showStore.isStopped(props.scene.id))
const addActions = computed(() =>
  others.value
    .filter(({ id }) => !pairs.value.some(({ from }) => from.id === id))
    .map((from) => ({ label: from.name, run: () => setPair(from, transitionTo(showStore.show!, from.id, props.scene.id), true) })),
)

function setOwn(transition: Transition | null): void {
  const isMade = showStore.edit(
    t('edits.transition', { name: props.scene.name }),
    (show) => setSceneTransition(show, props.scene.id, transition),
    `transition-${props.scene.id}-${transition?.kind ?? 'none'}`,
  )
  if (isMade && before.value !== null) play(before.value, transition ?? transitions.value.usual)
}

function setPair(from: Scene, transition: Transition | null, isNew = false): void {
  showStore.edit(
    t('edits.transition', { name: props.scene.name }),
    (show) => setPairTransition(show, from.id, props.scene.id, transition),
    isNew || transition === null ? null : `pair-${from.id}-${props.scene.id}-${transition.kind}`,
  )
  if (transition !== null && !isNew) play(from, transition)
}

function setUsual(transition: Transition | null): void {
  if (transition === null) return
  showStore.edit(t('edits.usualTransition'), (show) => setUsualTransition(show, transition), `usual-transition-${transition.kind}`)
  if (before.value !== null) play(before.value, transition)
}

function play(from: Scene, transition: Transition): void {
  playTransition(from, props.scene, transition)
}
</script>

<template>
  <InspectorSection name="transition" :title="t('transitions.title')">
    <fieldset :disabled="isStopped" class="m-0 grid min-w-0 grid-cols-[minmax(0,1fr)] gap-3 border-0 p-0">
      <TransitionFields
        :model-value="scene.transition"
        :label="t('transitions.own')"
        :none="usualName"
        :can-play="before !== null"
        @update:model-value="setOwn"
        @play="before && play(before, transitionTo(showStore.show!, before.id, scene.id))"
      />
      <TransitionFields
        v-for="{ from, transition } in pairs"
        :key="from.id"
        :model-value="transition"
        :label="t('transitions.after', { name: from.name })"
        can-play
        @update:model-value="setPair(from, $event)"
        @play="play(from, transition)"
      >
        <template #aside><IconButton :icon="X" size="small" :label="t('transitions.noPair', { name: from.name })" @click="setPair(from, null)" /></template>
      </TransitionFields>
      <ActionMenu v-if="addActions.length > 0" :actions="addActions" :label="t('transitions.addPair')">
        <Plus :size="14" class="shrink-0" aria-hidden="true" />{{ t('transitions.addPair') }}
      </ActionMenu>
      <TransitionFields
        :model-value="transitions.usual"
        :label="t('transitions.usual')"
        :can-play="before !== null"
        @update:model-value="setUsual"
        @play="before && play(before, transitions.usual)"
      />
    </fieldset>
  </InspectorSection>
</template>
