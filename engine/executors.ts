// Which of the two live executors makes the pictures: measured at the start, pinned by the presenter, and the processor
// whenever the graphics card is lost.
import type { SourceId } from '../core/picture/source.ts'
import type { Plane } from '../core/picture/float-picture.ts'
import type { RgbaPicture } from '../core/picture/picture.ts'
import { firstOutput, type FramePlan, type OutputId } from '../core/plan/frame-plan.ts'
import { CpuExecutor } from './cpu/cpu-executor.ts'
import { Treatments, type ChainResources } from './cpu/treatments.ts'
import type { Executor, SourceFrames } from './executor.ts'
import { GlDevice, GraphicsError } from './gl/device.ts'
import { GlExecutor } from './gl/gl-executor.ts'
import { GlTreatments } from './gl/gl-treatments.ts'
import { timeExecutors, type ExecutorTimes } from './time-executors.ts'

/** What the presenter asked for. */
export type ExecutorPin = 'auto' | 'cpu' | 'gl'

/** Why an executor is in use. */
export type ExecutorReason = 'noCard' | 'measured' | 'pinned' | 'lost' | 'failed'

export interface ExecutorState {
  readonly name: 'cpu' | 'gl'
  readonly reason: ExecutorReason
  /** Milliseconds a reference frame took each; null when it was not measured. */
  readonly times: ExecutorTimes | null
}

/** A graphics card that goes this often is left alone. */
const MOST_LOSSES = 3

export class Executors {
  readonly treatments: Treatments
  readonly #openContext: (acceptsSoftware: boolean) => WebGL2RenderingContext | null
  readonly #onChange: (state: ExecutorState) => void
  readonly #persons = new Map<SourceId, Plane>()
  #resources: ChainResources = { lut: () => null, picture: () => null }
  #pin: ExecutorPin = 'auto'
  #gl: WebGL2RenderingContext | null = null
  #card: GlTreatments | null = null
  #treatmentVersion = 0
  #losses = 0
  #losing: WEBGL_lose_context | null = null
  state: ExecutorState = { name: 'cpu', reason: 'noCard', times: null }

  /** `openContext` gives a WebGL2 context or null; one drawn in software only if that is accepted. */
  constructor(treatments: Treatments, openContext: (acceptsSoftware: boolean) => WebGL2RenderingContext | null, onChange: (state: ExecutorState) => void) {
    this.treatments = treatments
    this.#openContext = openContext
    this.#onChange = onChange
  }

  /** The graphics card's side of things, while it is in use. */
  get card(): GlTreatments | null {
    return this.#card
  }

  /** An executor that goes on with whatever is in use. */
  make(): Executor {
    return new LiveExecutor(this)
  }

  /** Grows when equal plans of equal pictures may look otherwise: another look, mask or executor. */
  get treatmentVersion(): number {
    return this.#treatmentVersion
  }

  /** Chooses anew. */
  pin(pin: ExecutorPin): void {
    this.#pin = pin
    this.#losses = 0
    this.#closeCard()
    this.#gl = null
    this.#choose()
  }

  setResources(resources: ChainResources): void {
    this.#resources = resources
    this.#treatmentVersion += 1
    this.treatments.setResources(resources)
    this.#card?.setResources(resources)
  }

  setPerson(sourceId: SourceId, mask: Plane | null): void {
    if (mask === null) this.#persons.delete(sourceId)
    else this.#persons.set(sourceId, mask)
    this.#treatmentVersion += 1
    this.treatments.setPerson(sourceId, mask)
    this.#card?.setPerson(sourceId, mask)
  }

  /** The graphics card is gone or can't do what is asked: the processor takes over at once. */
  leaveCard(reason: 'lost' | 'failed'): void {
    if (this.#card === null) return
    this.#losses += 1
    this.#closeCard()
    this.#change({ name: 'cpu', reason, times: null })
  }

  /** Takes the context away as a driver does when it resets, or gives it back; for tests of what follows. */
  simulateLoss(isLost: boolean): void {
    // A lost context has no extensions to ask for.
    if (isLost) this.#losing = this.#gl?.getExtension('WEBGL_lose_context') ?? this.#losing
    if (isLost) this.#losing?.loseContext()
    else this.#losing?.restoreContext()
  }

  #choose(): void {
    if (this.#pin === 'cpu') return this.#change({ name: 'cpu', reason: 'pinned', times: null })
    this.#gl = this.#openContext(this.#pin === 'gl')
    if (this.#gl === null) return this.#change({ name: 'cpu', reason: 'noCard', times: null })
    const { canvas } = this.#gl
    // Without this the browser would not give a lost context back.
    canvas.addEventListener('webglcontextlost', (event) => {
      event.preventDefault()
      if (canvas === this.#gl?.canvas) this.leaveCard('lost')
    })
    canvas.addEventListener('webglcontextrestored', () => {
      if (canvas === this.#gl?.canvas && this.#losses < MOST_LOSSES) this.#openCard()
    })
    this.#openCard()
  }

  #openCard(): void {
    try {
      const card = new GlTreatments(new GlDevice(this.#gl!))
      const times = this.#pin === 'gl' ? null : timeExecutors(this.treatments.heap, card)
      if (times !== null && times.cardMs >= times.cpuMs) {
        card.dispose()
        card.device.dispose()
        return this.#change({ name: 'cpu', reason: 'measured', times })
      }
      card.setResources(this.#resources)
      for (const [sourceId, mask] of this.#persons) card.setPerson(sourceId, mask)
      this.#card = card
      this.#change({ name: 'gl', reason: times === null ? 'pinned' : 'measured', times })
    } catch (error) {
      if (!(error instanceof GraphicsError)) throw error
      this.#change({ name: 'cpu', reason: 'failed', times: null })
    }
  }

  #closeCard(): void {
    this.#card?.dispose()
    this.#card?.device.dispose()
    this.#card = null
  }

  #change(state: ExecutorState): void {
    this.#treatmentVersion += 1
    this.state = state
    this.#onChange(state)
  }
}

/** Renders by the graphics card while there is one; a frame the graphics card fails to finish is made again by the processor. */
class LiveExecutor implements Executor {
  readonly #owner: Executors
  readonly #cpu: CpuExecutor
  #gl: GlExecutor | null = null
  #card: GlTreatments | null = null

  constructor(owner: Executors) {
    this.#owner = owner
    this.#cpu = new CpuExecutor(owner.treatments)
  }

  get name(): 'cpu' | 'gl' {
    return this.#owner.state.name
  }

  render(plan: FramePlan, sources: SourceFrames): RgbaPicture {
    return this.renderOutputs(plan, sources).get(firstOutput(plan))!
  }

  renderOutputs(plan: FramePlan, sources: SourceFrames, ids?: readonly OutputId[]): ReadonlyMap<OutputId, RgbaPicture> {
    const { card } = this.#owner
    if (card !== null) {
      try {
        if (card !== this.#card) this.#gl = new GlExecutor(card)
        this.#card = card
        return this.#gl!.renderOutputs(plan, sources, ids)
      } catch (error) {
        if (!(error instanceof GraphicsError)) throw error
        this.#owner.leaveCard(card.device.isLost ? 'lost' : 'failed')
      }
    }
    // The surfaces went with the graphics card.
    this.#gl = null
    this.#card = null
    return this.#cpu.renderOutputs(plan, sources, ids)
  }

  dispose(): void {
    if (this.#card !== null && this.#card === this.#owner.card) this.#gl?.dispose()
    this.#gl = null
    this.#cpu.dispose()
  }
}
