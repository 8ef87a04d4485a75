<script setup lang="ts">
// What is in a group: each by name, to work on it alone.
import { FolderOpen } from 'lucide-vue-next'
import { useI18n } from 'vue-i18n'
import type { GroupLayer } from '../../../../core/show/show.ts'
import BaseButton from '../../../base/BaseButton.vue'
import { useShowStore } from '../../../show/show.store.ts'
import InspectorSection from '../../../build/InspectorSection.vue'
import LayerNames from '../../../build/LayerNames.vue'

defineProps<{ layer: GroupLayer }>()
const { t } = useI18n()
const showStore = useShowStore()
</script>

<template>
  <InspectorSection name="group" :title="t('layer.inGroup')">
    <LayerNames :layers="layer.layers" @choose="(id) => showStore.selectLayer(id)" />
    <BaseButton class="mt-1.5" :icon="FolderOpen" @click="showStore.openGroup(layer)">{{ t('layer.workInside') }}</BaseButton>
  </InspectorSection>
</template>
