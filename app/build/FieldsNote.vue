<script setup lang="ts">
// What the fields of a text are filled with: shown only where a text names one.
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { setPresenter } from '../../core/show/edits.ts'
import { LIMITS } from '../../core/schema/limits.ts'
import { fieldNames, fieldsIn } from '../../core/text/fields.ts'
import type { TextContent } from '../../core/text/text-content.ts'
import { useShowStore } from '../show/show.store.ts'

const props = defineProps<{ text: TextContent }>()
const { t } = useI18n()
const showStore = useShowStore()
const used = computed(() => fieldsIn(props.text))
const presenter = computed(() => showStore.show!.presenter)
const listed = fieldNames.map((name) => `{${name}}`).join(' ')

function set(part: Partial<typeof presenter.value>): void {
  showStore.edit(t('edits.presenter'), (show) => setPresenter(show, part), `presenter-${Object.keys(part).join()}`)
}
const words = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <p v-if="used.length === 0" class="mt-2 text-[11.5px] leading-snug text-soft">{{ t('inspector.fieldsHint', { fields: listed }) }}</p>
  <div v-else class="mt-2 grid gap-1.5">
    <label v-for="name in (['name', 'title'] as const).filter((field) => used.includes(field))" :key="name" class="text-[11.5px] text-soft">
      {{ t(`inspector.fields.${name}`) }}
      <input
        :value="presenter[name]"
        :maxlength="LIMITS.nameLength"
        class="mt-0.5 w-full rounded-md border border-line bg-raised px-2 py-1 text-[13px] text-ink"
        @change="set({ [name]: words($event) })"
      />
    </label>
    <label v-if="used.includes('countdown')" class="text-[11.5px] text-soft">
      {{ t('inspector.fields.countdown') }}
      <input
        type="time"
        :value="presenter.countdownTo ?? ''"
        class="mt-0.5 w-full rounded-md border border-line bg-raised px-2 py-1 text-[13px] text-ink"
        @change="set({ countdownTo: words($event) || null })"
      />
    </label>
  </div>
</template>
