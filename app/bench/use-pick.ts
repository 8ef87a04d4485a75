// Picking a colour from the picture for the step that asked for one.
import { computed, type Ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { parseHex } from '../../core/colour/hex.ts'
import { setStepParams, treatmentAt } from '../../core/show/edits.ts'
import type { Input, Step } from '../../core/show/show.ts'
import { stepOf } from '../../core/steps/index.ts'
import { useEngineStore } from '../engine/engine.store.ts'
import { useShowStore } from '../show/show.store.ts'
import { useBenchStore } from './bench.store.ts'

export function usePick(input: Ref<Input | null>) {
  const { t } = useI18n()
  const showStore = useShowStore()
  const engine = useEngineStore()
  const bench = useBenchStore()
  const chain = computed(() => (showStore.show === null ? [] : treatmentAt(showStore.show, bench.home)))
  const pickingStep = computed(() => chain.value.find((step) => step.id === bench.pickingStepId) ?? null)
  const isPicking = computed(() => bench.pickingStepId !== null)

  /** Gives the colour at (x, y), 0..1 across the picture, to the step. */
  async function pickAt(x: number, y: number): Promise<void> {
    const step = pickingStep.value
    if (input.value === null || step === null) return
    const colour = await engine.calls().pictures.pick(input.value.id, x, y, step.id, bench.layer)
    if (colour === null) {
      toast.error(t('bench.noPicture'))
      return
    }
    const params = pickOf(step, colour)
    if (params === null) {
      toast.error(t(`steps.${step.kind}.pickRefused`))
      return
    }
    bench.pickingStepId = null
    const { home } = bench
    const isMade = showStore.edit(t('edits.pick'), (show) => setStepParams(show, home, step.id, params))
    if (isMade) toast(t(`steps.${step.kind}.picked`, { colour }))
  }

  return { pickingStep, isPicking, pickAt }
}

function pickOf(step: Step, colour: string): Readonly<Record<string, number | string>> | null {
  const { pick } = stepOf(step.kind)
  return pick?.(parseHex(colour)) ?? null
}
