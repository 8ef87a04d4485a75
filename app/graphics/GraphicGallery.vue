<script setup lang="ts">
// Graphics to choose from, drawn over the presenter's own picture in the show's own colours.
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { ImagePlus, X } from 'lucide-vue-next'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { graphicFamilies, type GraphicFamily } from '../../core/graphics/families.ts'
import { graphicKinds, type GraphicKind, type NewGraphic } from '../../core/graphics/make-graphic.ts'
import type { Scene } from '../../core/show/show.ts'
import { useAirStore } from '../air/air.store.ts'
import ChoiceBar from '../base/ChoiceBar.vue'
import IconButton from '../base/IconButton.vue'
import LivePicture from '../live-picture/LivePicture.vue'
import { useShowStore } from '../show/show.store.ts'
import { isGalleryShown } from './gallery-open.ts'
import StyleAside from './StyleAside.vue'
import OwnGraphics from './OwnGraphics.vue'
import { useGraphics } from './use-graphics.ts'
import { useLogo } from './use-logo.ts'
import { usePictures } from './use-pictures.ts'

const emit = defineEmits<{ added: [] }>()
const { t } = useI18n()
const showStore = useShowStore()
const air = useAirStore()
const { drafted, sampled, knownPhoto, add } = useGraphics()
const { likelyLogo, fromFile } = usePictures()
const { make: makeLogo } = useLogo()
const look = ref<GraphicFamily | 'own'>('ruled')
const family = computed<GraphicFamily>(() => (look.value === 'own' ? 'ruled' : look.value))
const looks = computed(() => [
  ...graphicFamilies.map((value) => ({ value, label: t(`graphics.families.${value}`) })),
  { value: 'own' as const, label: t('graphics.own') },
])

/** What lies under the previews: what the audience would see. */
const under = computed<Scene | null>(() => {
  const id = air.onAirId ?? showStore.onAirId
  return showStore.show?.scenes.find((scene) => scene.id === id) ?? null
})
const drafts = computed(() =>
  isGalleryShown.value && look.value !== 'own' && showStore.show !== null
    ? graphicKinds.map((kind) => ({ kind, made: sampled({ kind, family: family.value }) }))
    : [],
)
const tile = computed(() => {
  const { widthPx, heightPx } = showStore.show!.canvas
  const width = 340
  return { widthPx: width, heightPx: Math.max(1, Math.round((width * heightPx) / widthPx)), aspect: `${widthPx} / ${heightPx}` }
})
const sceneOf = ({ graphic }: NewGraphic): Scene => ({ ...graphic, graphic: null, layers: [...(under.value?.layers ?? []), ...graphic.layers] })

/** A photo is asked for where no graphic of the show has one. */
async function choose(kind: GraphicKind): Promise<void> {
  const photo = kind !== 'portrait' ? null : (knownPhoto.value ?? (await fromFile()))
  if (kind === 'portrait' && photo === null) return
  if (add(drafted({ kind, family: family.value }, photo), kind)) finish()
}
function finish(): void {
  isGalleryShown.value = false
  emit('added')
}
/** A logo shows the picture that is most likely one; where the show has none, a file is asked for. */
async function addLogo(): Promise<void> {
  const picture = likelyLogo.value ?? (await fromFile())
  if (picture === null || !add({ graphic: await makeLogo(picture), contents: [] }, 'logo')) return
  finish()
}
</script>

<template>
  <Dialog :open="isGalleryShown" class="relative z-40" @close="isGalleryShown = false">
    <div class="fixed inset-0 bg-black/45" aria-hidden="true"></div>
    <div class="fixed inset-0 grid place-items-center p-4">
      <DialogPanel
        class="flex h-[min(768px,100%)] w-full max-w-[1080px] flex-col overflow-hidden rounded-2xl border border-line bg-paper"
        data-testid="graphic-gallery"
      >
        <div class="flex shrink-0 flex-wrap items-center gap-x-4 gap-y-2 border-b border-line px-5 py-3">
          <DialogTitle class="font-head text-[20px] font-bold">{{ t('graphics.add') }}</DialogTitle>
          <ChoiceBar v-model="look" :label="t('graphics.look')" :choices="looks" />
          <span class="flex-1"></span>
          <IconButton :icon="X" :label="t('errors.close')" @click="isGalleryShown = false" />
        </div>
        <div class="grid min-h-0 flex-1 overflow-y-auto min-[760px]:grid-cols-[minmax(0,1fr)_232px] min-[760px]:overflow-hidden">
          <div class="grid content-start grid-cols-[repeat(auto-fill,minmax(200px,1fr))] gap-3 p-5 min-[760px]:overflow-y-auto">
            <OwnGraphics v-if="look === 'own'" @added="finish" />
            <button
              v-for="{ kind, made } in drafts"
              :key="`${family} ${kind}`"
              type="button"
              class="min-w-0 rounded-xl border border-line bg-raised p-1.5 text-start hover:border-soft"
              @click="choose(kind)"
            >
              <span class="grid aspect-video place-items-center overflow-hidden rounded-lg bg-well">
                <LivePicture
                  class="pointer-events-none max-h-full max-w-full"
                  :style="{ aspectRatio: tile.aspect, height: '100%' }"
                  :request="{ kind: 'draft', scene: sceneOf(made), contents: made.contents }"
                  :width-px="tile.widthPx"
                  :height-px="tile.heightPx"
                  label=""
                />
              </span>
              <span class="mt-1 block px-1 font-semibold">{{ t(`graphics.kinds.${kind}`) }}</span>
            </button>
            <button
              v-if="look !== 'own'"
              type="button"
              class="min-w-0 rounded-xl border border-line bg-raised p-1.5 text-start hover:border-soft"
              @click="addLogo"
            >
              <span class="relative grid aspect-video place-items-center overflow-hidden rounded-lg bg-well">
                <LivePicture
                  v-if="under"
                  class="pointer-events-none max-h-full max-w-full"
                  :style="{ aspectRatio: tile.aspect, height: '100%' }"
                  :request="{ kind: 'scene', sceneId: under.id, isSmall: true }"
                  :width-px="tile.widthPx"
                  :height-px="tile.heightPx"
                  label=""
                />
                <img v-if="likelyLogo" :src="`/api/assets/${likelyLogo.asset}`" alt="" class="absolute end-[7%] top-[8%] max-h-[22%] max-w-[36%]" />
                <ImagePlus v-else :size="22" class="absolute end-[7%] top-[8%] text-white" aria-hidden="true" />
              </span>
              <span class="mt-1 block px-1 font-semibold">{{ t('graphics.kinds.logo') }}</span>
            </button>
          </div>
          <StyleAside :hint="t('graphics.styleHint')" />
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
