// "Find it for me" and the empty cloth: asks the solver's worker, and puts what it finds into the chain as one edit.
import { newStep, activeSteps } from '../../core/steps/treatment.ts'
import { computed, onScopeDispose, ref, shallowRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { errorWords } from '../show/error-words.ts'
import { toast } from 'vue-sonner'
import { parseHex } from '../../core/colour/hex.ts'
import { LEAST_PRESENTER, type KeyFigures } from '../../core/matte/figures.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import { addStep, putSteps, setStepParams, switchStep, treatmentAt, type TreatmentHome } from '../../core/show/edits.ts'
import type { Step } from '../../core/show/show.ts'
import type { ClothEnds } from '../../core/solve/cloth-ends.ts'
import { solvedCalls, type KeySolution } from '../../core/solve/find-key.ts'
import type { FromSolver, SolveRequest } from '../../engine/solver/solver.worker.ts'
import { engineFiles } from '../engine/engine-files.ts'
import { useEngineStore } from '../engine/engine.store.ts'
import { announce } from '../shell/announce.ts'
import { api } from '../show/api.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import { useBenchStore } from './bench.store.ts'
import { pngOf, useGrab } from './use-grab.ts'

const COUNT_FROM = 3
const SECOND_MS = 1000

type KeyStep = Extract<Step, { kind: 'chromaKey' }>

/** `home`: the treatment to search a key for, if not the one on the bench. */
export function useFindKey(step: () => KeyStep, home: (() => TreatmentHome) | null = null) {
  const { t } = useI18n()
  const showStore = useShowStore()
  const engine = useEngineStore()
  const bench = useBenchStore()
  const { grabBefore } = useGrab()
  /** Share done, 0..1; null when nothing runs. */
  const progress = ref<number | null>(null)
  const figures = shallowRef<{ readonly before: KeyFigures | null; readonly after: KeyFigures } | null>(null)
  /** What the sides should lose; null when nothing. */
  const ends = shallowRef<ClothEnds | null>(null)
  const isNobodyLeft = computed(() => figures.value !== null && figures.value.after.presenter < LEAST_PRESENTER)
  const homeNow = (): TreatmentHome => home?.() ?? bench.home
  /** The treatment the running search was started for: its result goes there, even if another is shown by then. */
  let searched: TreatmentHome = { type: 'input', inputId: '' }
  /** Seconds until the empty cloth is taken; null when none is asked for. */
  const countdown = ref<number | null>(null)
  let worker: Worker | null = null
  /** Counts searches, so that a cancelled one stops when its picture arrives. */
  let turn = 0
  let timer: number | null = null

  /** The picture before a step of the home in hand. */
  function grabFor(stepId: string) {
    const at = homeNow()
    return at.type === 'input' ? engine.calls().pictures.grab(at.inputId, stepId, null) : grabBefore(stepId)
  }

  /** Crops the sides the search found without cloth, in addition to the existing crop. */
  function cropEnds(): void {
    const found = ends.value
    if (found === null) return
    const at = searched
    showStore.edit(t('key.cropEnds'), (show) => {
      const known = treatmentAt(show, at).find((one) => one.kind === 'crop')
      const crop = known ?? newStep('crop', makeId)
      const withCrop = known === undefined ? addStep(show, at, crop) : switchStep(show, at, crop.id, true)
      const params = crop.kind === 'crop' && crop.on ? crop.params : { left: 0, right: 0 }
      return setStepParams(withCrop, at, crop.id, { left: Math.max(params.left, found.left), right: Math.max(params.right, found.right) })
    })
    ends.value = null
  }

  async function find(): Promise<void> {
    cancel()
    const { id, params } = step()
    const mine = turn
    searched = homeNow()
    // Waits for a camera that is still starting; that wait can be cancelled as well.
    progress.value = 0
    const picture = await grabFor(id)
    if (mine !== turn) return
    if (picture === null) {
      cancel()
      toast.error(t('bench.noPicture'))
      return
    }
    let plate: SolveRequest['plate']
    try {
      plate = await plateOf(picture, params)
    } catch (error) {
      if (mine === turn) receive({ type: 'failed', reason: error instanceof Error ? error.message : String(error) })
      return
    }
    if (mine !== turn) return
    const solving = new Worker(new URL('../../engine/solver/solver.worker.ts', import.meta.url), { type: 'module', name: 'solver' })
    worker = solving
    solving.onmessage = ({ data }: MessageEvent<FromSolver>) => receive(data)
    solving.onerror = (event) => receive({ type: 'failed', reason: event.message })
    const chain = treatmentAt(showStore.show!, searched)
    const before = activeSteps(chain).filter((call) => ['denoise', 'chromaKey', 'matteEdge', 'spill'].includes(call.kind))
    solving.postMessage({
      wasmUrl: engineFiles.wasmUrl,
      picture,
      hint: parseHex(params.colour),
      plate,
      before,
    } satisfies SolveRequest)
  }

  /** The empty cloth that was taken, as the key uses it. */
  async function plateOf(like: RgbaPicture, params: KeyStep['params']): Promise<SolveRequest['plate']> {
    const reference = params.plate
    if (reference === '' || params.backdrop !== 'plate') return null
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
    showStore.edit(t('key.find'), (show) => putSteps(show, searched, solved))
    figures.value = { before: solution.before, after: solution.after }
    ends.value = solution.ends
    announce(t('key.found'))
  }

  /** Stops a search; the chain stays as it is. */
  function cancel(): void {
    turn += 1
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
    const at = homeNow()
    const { id } = step()
    const picture = await grabFor(id)
    if (picture === null) {
      toast.error(t('bench.noPicture'))
      return
    }
    try {
      const asset = await api.addAsset(await pngOf(picture, 'empty-cloth.png'))
      const isMade = showStore.edit(t('key.plate'), (show) => setStepParams(show, at, id, { plate: asset.hash, backdrop: 'plate' }))
      if (isMade) toast(t('key.plateTaken'))
    } catch (error) {
      toast.error(errorWords(error))
    }
  }

  onScopeDispose(() => {
    cancel()
    stopCountdown()
  })
  return { progress, figures, ends, isNobodyLeft, cropEnds, undo: () => showStore.undo(), countdown, find, cancel, takePlate, stopCountdown }
}
