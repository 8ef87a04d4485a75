<script setup lang="ts">
// What a shape is made of: its fill, and its outline if it has one of its own.
import { computed } from 'vue'
import { shapeOf, type ShapeLayer } from '../../../../core/layers/shape.ts'
import { useShowStore } from '../../../show/show.store.ts'
import FillSection from './FillSection.vue'
import OutlineSection from './OutlineSection.vue'

const props = defineProps<{ layer: ShapeLayer }>()
const showStore = useShowStore()
const outline = computed(() => shapeOf(showStore.show!, props.layer).outline)
</script>

<template>
  <FillSection :layer="layer" />
  <OutlineSection v-if="outline" :layer="layer" :outline="outline" />
</template>
