// "Find it for me" and the empty cloth: asks the solver's worker, and puts what it finds into the chain as one edit.
import { onScopeDispose, ref, shallowRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { parseHex } from '../../core/colour/hex.ts'
import type { KeyFigures } from '../../core/matte/figures.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import { activeSteps } from '../../core/plan/plan-frame.ts'
import { putSteps, setStepParams, treatmentAt } from '../../core/show/edits.ts'
import type { Step } from '../../core/show/show.ts'
import { solvedCalls, type KeySolution } from '../../core/solve/find-key.ts'
import type { FromSolver, SolveRequest } from '../../engine/solver/solver.worker.ts'
import { engineFiles } from '../engine/engine-files.ts'
import { api } from '../show/api.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import { useBenchStore } from './bench.store.ts'
import { pngOf, useGrab } from './use-grab.ts'

const COUNT_FROM = 3
const SECOND_MS = 1000

type KeyStep = Extract<Step, { kind: 'chromaKey' }>

export function useFindKey(step: () => KeyStep) {
  const { t } = useI18n()
  const showStore = useShowStore()
  const bench = useBenchStore()
  const { grabBefore } = useGrab()
  /** Share done, 0..1; null when nothing runs. */
  const progress = ref<number | null>(null)
  const figures = shallowRef<{ readonly before: KeyFigures; readonly after: KeyFigures } | null>(null)
  /** Seconds until the empty cloth is taken; null when none is asked for. */
  const countdown = ref<number | null>(null)
  let worker: Worker | null = null
  let timer: number | null = null

  async function find(): Promise<void> {
    const picture = await grabBefore(step().id)
    if (picture === null) {
      toast.error(t('bench.noPicture'))
      return
    }
    cancel()
    progress.value = 0
    const solving = new Worker(new URL('../../engine/solver/solver.worker.ts', import.meta.url), { type: 'module', name: 'solver' })
    worker = solving
    solving.onmessage = ({ data }: MessageEvent<FromSolver>) => receive(data)
    solving.onerror = (event) => receive({ type: 'failed', reason: event.message })
    const chain = treatmentAt(showStore.show!, bench.home)
    const before = activeSteps(chain).filter((call) => ['denoise', 'chromaKey', 'matteEdge', 'spill'].includes(call.kind))
    solving.postMessage({
      wasmUrl: engineFiles.wasmUrl,
      picture,
      hint: parseHex(step().params.colour),
      plate: await plateOf(picture),
      before,
    } satisfies SolveRequest)
  }

  /** The empty cloth that was taken, as the key uses it. */
  async function plateOf(like: RgbaPicture): Promise<SolveRequest['plate']> {
    const reference = step().params.plate
    if (reference === '' || step().params.backdrop !== 'plate') return null
    const bitmap = await createImageBitmap(await (await fetch(`${engineFiles.assetUrlPrefix}${reference}`)).blob())
    const pen = new OffscreenCanvas(like.widthPx, like.heightPx).getContext('2d')!
    pen.drawImage(bitmap, 0, 0, like.widthPx, like.heightPx)
    const { data } = pen.getImageData(0, 0, like.widthPx, like.heightPx)
    return { reference, picture: { format: 'rgba', widthPx: like.widthPx, heightPx: like.heightPx, data } }
  }

  function receive(message: FromSolver): void {
    if (message.type === 'progress') {
      progress.value = message.share
      return
    }
    cancel()
    if (message.type === 'failed') toast.error(t('key.failed', { reason: message.reason }))
    else if (message.solution === null) toast.error(t('key.noCloth'))
    else take(message.solution)
  }

  function take(solution: KeySolution): void {
    const solved = solvedCalls(solution).map((call) => ({ id: makeId(), on: true, ...call })) as Step[]
    const { home } = bench
    showStore.edit(t('key.find'), (show) => putSteps(show, home, solved))
    figures.value = { before: solution.before, after: solution.after }
  }

  /** Stops a search; the chain stays as it is. */
  function cancel(): void {
    worker?.terminate()
    worker = null
    progress.value = null
  }

  /** Counts down so that the presenter can step out of the picture, then takes the empty cloth. */
  function takePlate(): void {
    stopCountdown()
    countdown.value = COUNT_FROM
    const count = () => {
      countdown.value! -= 1
      if (countdown.value! > 0) timer = window.setTimeout(count, SECOND_MS)
      else {
        stopCountdown()
        void keepPlate()
      }
    }
    timer = window.setTimeout(count, SECOND_MS)
  }

  function stopCountdown(): void {
    if (timer !== null) window.clearTimeout(timer)
    timer = null
    countdown.value = null
  }

  async function keepPlate(): Promise<void> {
    const picture = await grabBefore(step().id)
    if (picture === null) {
      toast.error(t('bench.noPicture'))
      return
    }
    try {
      const asset = await api.addAsset(await pngOf(picture, 'empty-cloth.png'))
      const { home } = bench
      showStore.edit(t('key.plate'), (show) => setStepParams(show, home, step().id, { plate: asset.hash, backdrop: 'plate' }))
      toast(t('key.plateTaken'))
    } catch (error) {
      toast.error(error instanceof TypeError ? t('errors.network') : error instanceof Error ? error.message : String(error))
    }
  }

  onScopeDispose(() => {
    cancel()
    stopCountdown()
  })
  return { progress, figures, countdown, find, cancel, takePlate, stopCountdown }
}
