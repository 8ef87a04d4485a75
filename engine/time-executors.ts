// A reference frame on both live executors: 1280 × 720, a cloth key, tone, look and sharpening, new each time.
import { inputSourceId } from '../core/inputs/source-ids.ts'
import { i420ByteLength, type Picture } from '../core/picture/picture.ts'
import { planInput } from '../core/stage/plan-frame.ts'
import type { StepCall } from '../core/steps/index.ts'
import { stepOf } from '../core/steps/index.ts'
import { defaultParams } from '../core/steps/step.ts'
import { CpuExecutor } from './cpu/cpu-executor.ts'
import type { Heap } from './cpu/heap.ts'
import { Treatments } from './cpu/treatments.ts'
import type { Executor } from './executor.ts'
import { GlExecutor } from './gl/gl-executor.ts'
import type { GlTreatments } from './gl/gl-treatments.ts'

/** Milliseconds a frame took at best. */
export interface ExecutorTimes {
  readonly cpuMs: number
  readonly cardMs: number
}

const WIDTH_PX = 1280
const HEIGHT_PX = 720
/** The first ones fill tables and compile shaders. */
const WARM_UP = 2
const ROUNDS = 4
/** A card so many times slower on its second frame is not timed any further: the presenter waits. */
const HOPELESS = 4

const chain: readonly StepCall[] = [
  { kind: 'tone', params: { ...defaultParams(stepOf('tone').params), exposure: 0.3 } },
  { kind: 'chromaKey', params: defaultParams(stepOf('chromaKey').params) },
  { kind: 'look', params: defaultParams(stepOf('look').params) },
  { kind: 'sharpen', params: defaultParams(stepOf('sharpen').params) },
]

/** Times both in turn, so that a busy machine slows both. Everything made for it is given back. */
export function timeExecutors(heap: Heap, card: GlTreatments): ExecutorTimes {
  const treatments = new Treatments(heap)
  const cpu = new CpuExecutor(treatments)
  const gl = new GlExecutor(card)
  const best = { cpu: Infinity, gl: Infinity }
  const plan = planInput('reference', { widthPx: WIDTH_PX, heightPx: HEIGHT_PX, isOpaque: true }, chain, WIDTH_PX, HEIGHT_PX)
  const timed = (executor: Executor, picture: Picture, version: number) => {
    const started = performance.now()
    executor.render(plan, new Map([[inputSourceId('reference'), { picture, version, isLive: true }]]))
    return performance.now() - started
  }
  try {
    for (let round = 0; round < WARM_UP + ROUNDS; round += 1) {
      const picture = referencePicture(round)
      const times = { cpu: timed(cpu, picture, round), gl: timed(gl, picture, round) }
      if (round === 0) continue
      if (times.gl > HOPELESS * times.cpu) return { cpuMs: times.cpu, cardMs: times.gl }
      if (round < WARM_UP) continue
      best.cpu = Math.min(best.cpu, times.cpu)
      best.gl = Math.min(best.gl, times.gl)
    }
  } finally {
    gl.dispose()
    card.dispose()
    cpu.dispose()
    treatments.dispose()
  }
  return { cpuMs: best.cpu, cardMs: best.gl }
}

/** Green at one side, skin at the other, a little different each time. */
function referencePicture(round: number): Picture {
  const data = new Uint8Array(i420ByteLength(WIDTH_PX, HEIGHT_PX))
  const lumaLength = WIDTH_PX * HEIGHT_PX
  const chromaLength = lumaLength / 4
  for (let i = 0; i < lumaLength; i += 1) data[i] = 60 + (((i % WIDTH_PX) >> 4) + ((i * 7) % 5) + round)
  for (let i = 0; i < chromaLength; i += 1) {
    const isCloth = i % (WIDTH_PX / 2) < WIDTH_PX / 4
    data[lumaLength + i] = isCloth ? 90 + (i % 3) : 110 + (i % 5)
    data[lumaLength + chromaLength + i] = isCloth ? 70 + (i % 3) : 150 + (i % 5)
  }
  return { format: 'i420', widthPx: WIDTH_PX, heightPx: HEIGHT_PX, matrix: 'bt709', range: 'limited', data }
}
