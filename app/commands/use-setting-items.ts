// Settings that can be found by typing: those of the selected layer, of the steps of an input, and of the voice. Choosing one leads to it.
import { SlidersHorizontal } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute, useRouter } from 'vue-router'
import { isCamera } from '../../core/inputs/camera.ts'
import { inputKindOf } from '../../core/inputs/index.ts'
import { inputOf } from '../../core/layers/index.ts'
import { isShape } from '../../core/layers/shape.ts'
import { isText } from '../../core/layers/text.ts'
import { addStep } from '../../core/show/edits.ts'
import type { Layer } from '../../core/show/show.ts'
import { stepOf, steps, type StepKind } from '../../core/steps/index.ts'
import { newStep } from '../../core/steps/treatment.ts'
import { announce } from '../shell/announce.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import type { PaletteItem } from './find.ts'
import { reachSetting } from './reach-setting.ts'

/** Of the words of the inspector, those that name a setting of any layer, of pictures, of texts, of shapes. */
const ANY = ['x', 'y', 'width', 'height', 'angle', 'opacity', 'blend', 'shadow'] as const
const PICTURE = ['fitLabel', 'form', 'proportions', 'border'] as const
const TEXT = ['family', 'align', 'lineHeight', 'letterSpacing', 'outline', 'letterShadow', 'plate', 'border'] as const
const SHAPE = ['fillKind', 'stroke'] as const
const VOICE = ['microphone', 'gain', 'delay', 'heardOn', 'echoCancellation', 'noiseSuppression', 'autoGainControl'] as const

const namesOf = (layer: Layer) => [...ANY, ...(isText(layer) ? TEXT : isShape(layer) ? SHAPE : PICTURE)]

export function useSettingItems() {
  const { t } = useI18n()
  const route = useRoute()
  const router = useRouter()
  const showStore = useShowStore()

  function item(id: string, title: string, group: string, run: () => void): PaletteItem {
    return { id: `setting-${id}`, title, group, whyNot: null, icon: SlidersHorizontal, key: null, run }
  }

  async function reach(root: string, label: string): Promise<void> {
    if (!(await reachSetting(root, label))) announce(t('commands.noSetting', { name: label }))
  }

  const ofLayer = computed(() => {
    const { layer } = showStore
    if (layer === null || route.name !== 'build') return []
    return namesOf(layer).map((name) => {
      const label = t(`inspector.${name}`)
      return item(`layer-${name}`, label, t('commands.groups.layer'), () => void reach('.build-inspector', label))
    })
  })

  /** The input whose steps are meant: the selected layer's, or the first camera. */
  const input = computed(() => {
    const { show, layer } = showStore
    if (show === null) return null
    const selected = inputOf(show, layer ?? undefined)
    return (selected !== undefined && inputKindOf(selected).hasPicture ? selected : undefined) ?? show.inputs.find(isCamera) ?? null
  })

  async function toBench(stepId: string, label: string): Promise<void> {
    await router.push({ name: 'bench', params: { showId: showStore.showId!, inputId: input.value!.id }, query: { step: stepId } })
    await reach('.bench-chain', label)
  }

  function add(kind: StepKind): void {
    const step = newStep(kind, makeId)
    const home = { type: 'input', inputId: input.value!.id } as const
    showStore.edit(t('edits.addStep', { name: t(`steps.${kind}.name`) }), (show) => addStep(show, home, step))
    void toBench(step.id, t('bench.switchStep', { step: t(`steps.${kind}.name`) }))
  }

  const ofSteps = computed(() => {
    const chain = input.value?.treatment ?? []
    if (input.value === null) return []
    return steps.flatMap(({ kind }) => {
      const name = t(`steps.${kind}.name`)
      const step = chain.find((one) => one.kind === kind)
      if (step === undefined) return [item(`add-${kind}`, name, t('bench.addStep'), () => add(kind))]
      return [
        item(`step-${kind}`, name, input.value!.name, () => void toBench(step.id, t('bench.switchStep', { step: name }))),
        ...Object.entries(stepOf(kind).params)
          .filter(([, spec]) => spec.type === 'number' || spec.type === 'choice')
          .map(([param]) => {
            const label = t(`steps.${kind}.params.${param}`)
            return item(`${kind}-${param}`, label, name, () => void toBench(step.id, label))
          }),
      ]
    })
  })

  async function toDevices(label: string): Promise<void> {
    await router.push({ name: 'devices', params: { showId: showStore.showId! } })
    await reach('[data-testid="microphone-panel"]', label)
  }

  const ofVoice = computed(() =>
    showStore.show === null
      ? []
      : VOICE.map((name) => {
          const label = t(`devices.${name}`)
          return item(`voice-${name}`, label, t('devices.voice'), () => void toDevices(label))
        }),
  )

  return { settings: computed(() => [...ofLayer.value, ...ofSteps.value, ...ofVoice.value]) }
}
