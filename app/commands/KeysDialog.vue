<script setup lang="ts">
// All keys, on "?"; those of commands can be changed.
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { Pencil, X } from 'lucide-vue-next'
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { graphicsOf } from '../../core/show/edits.ts'
import BaseButton from '../base/BaseButton.vue'
import IconButton from '../base/IconButton.vue'
import { keyGroups } from './fixed-keys.ts'
import { areSameKey, bindingOf, keyWords } from './keys.ts'
import { commandIds, commandList, type CommandId } from './list.ts'
import { useShowStore } from '../show/show.store.ts'
import { useKeysStore } from './keys.store.ts'

const { t } = useI18n()
const keys = useKeysStore()
const showStore = useShowStore()
/** The command whose next key is waited for. */
const waitingFor = ref<CommandId | null>(null)
const refusal = ref<string | null>(null)
const wordsOf = computed(() => (id: CommandId) => {
  const [key] = keys.keysOf(id)
  return key === undefined ? t('commands.noKey') : keyWords(key)
})

/** Those for a scene and for the selected layers stand by themselves. */
const parts = computed(() => {
  const groupOf = (id: CommandId) => commandList[id].group
  const ofGroup = (group: 'scene' | 'layer') => ({
    title: t(`commands.groups.${group}`),
    ids: commandIds.filter((id) => groupOf(id) === group),
    hasScenes: false,
  })
  const everywhere = commandIds.filter((id) => groupOf(id) !== 'scene' && groupOf(id) !== 'layer')
  return [{ title: t('keys.groups.everywhere'), ids: everywhere, hasScenes: true }, ofGroup('scene'), ofGroup('layer')]
})

watch(
  () => keys.isListShown,
  () => stopWaiting(),
)

function stopWaiting(): void {
  waitingFor.value = null
  refusal.value = null
}

function onKey(event: KeyboardEvent, id: CommandId): void {
  if (waitingFor.value !== id) return
  event.preventDefault()
  event.stopPropagation()
  if (event.key === 'Escape') return stopWaiting()
  const binding = bindingOf(event)
  if (binding === null) return
  const key = keyWords(binding)
  // A graphic of the open show keeps its key: it would lose it without a word.
  const graphic =
    showStore.show === null ? undefined : graphicsOf(showStore.show).find((one) => one.graphic!.key !== null && areSameKey(one.graphic!.key, binding))
  if (graphic !== undefined) {
    refusal.value = t('commands.taken', { key, name: graphic.name })
    return
  }
  const refused = keys.give(id, binding)
  if (refused === null) return stopWaiting()
  refusal.value = refused.type === 'page' ? t('commands.belongsToPage', { key }) : t('commands.taken', { key, name: t(`commands.does.${refused.by}`) })
}

function wait(id: CommandId): void {
  refusal.value = null
  waitingFor.value = waitingFor.value === id ? null : id
}
</script>

<template>
  <Dialog :open="keys.isListShown" class="relative z-50" @close="waitingFor === null && (keys.isListShown = false)">
    <div class="fixed inset-0 bg-black/40" aria-hidden="true"></div>
    <div class="fixed inset-0 grid place-items-center p-4">
      <DialogPanel class="max-h-full w-[min(860px,100%)] overflow-auto rounded-2xl border border-line bg-raised p-5 shadow-xl">
        <div class="mb-3 flex items-center justify-between gap-2">
          <DialogTitle class="font-head text-[18px] font-bold">{{ t('keys.title') }}</DialogTitle>
          <span class="flex items-center gap-2">
            <BaseButton v-if="keys.isChanged" @click="keys.reset()">{{ t('commands.reset') }}</BaseButton>
            <IconButton :icon="X" :label="t('errors.close')" @click="keys.isListShown = false" />
          </span>
        </div>
        <div class="columns-1 gap-8 min-[700px]:columns-2">
          <section v-for="part in parts" :key="part.title" class="mb-4 break-inside-avoid">
            <h3 class="mb-1 text-[12.5px] font-semibold text-soft">{{ part.title }}</h3>
            <ul>
              <li v-for="id in part.ids" :key="id" class="border-t border-line py-0.5">
                <div class="flex items-center gap-2">
                  <span class="min-w-0 flex-1">{{ t(`commands.does.${id}`) }}</span>
                  <span class="shrink-0 font-num text-[11.5px] text-soft" :data-testid="`key-${id}`">{{ wordsOf(id) }}</span>
                  <IconButton
                    :icon="Pencil"
                    size="small"
                    :label="t('commands.change', { name: t(`commands.does.${id}`) })"
                    :is-on="waitingFor === id"
                    @click="wait(id)"
                    @keydown="onKey($event, id)"
                    @blur="waitingFor === id && stopWaiting()"
                  />
                </div>
                <p v-if="waitingFor === id" class="pb-1 text-[12px]" :class="refusal ? 'text-tally' : 'text-soft'" role="status">
                  {{ refusal ?? t('commands.press') }}
                </p>
              </li>
              <li v-if="part.hasScenes" class="flex items-baseline gap-3 border-t border-line py-1">
                <span class="min-w-0 flex-1">{{ t('keys.does.take') }}</span>
                <span class="shrink-0 pe-8 font-num text-[11.5px] text-soft">{{ t('keys.press.take') }}</span>
              </li>
            </ul>
          </section>
          <section v-for="group in keyGroups" :key="group.name" class="mb-4 break-inside-avoid">
            <h3 class="mb-1 text-[12.5px] font-semibold text-soft">{{ t(`keys.groups.${group.name}`) }}</h3>
            <dl>
              <div v-for="key in group.keys" :key="key" class="flex items-baseline gap-3 border-t border-line py-1">
                <dt class="min-w-0 flex-1">{{ t(`keys.does.${key}`) }}</dt>
                <dd class="shrink-0 font-num text-[11.5px] text-soft">{{ t(`keys.press.${key}`) }}</dd>
              </div>
            </dl>
          </section>
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
