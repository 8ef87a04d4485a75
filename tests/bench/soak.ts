// Ten minutes on air: what grows that should not.
import { watchSteal } from './cpu-steal.ts'
import { startFeedRig } from './feed-rig.ts'

const MINUTES = 10

interface SoakState {
  readonly heapBytes: number
  readonly liveFrames: number
}

export interface SoakFigures {
  readonly minutes: number
  readonly start: SoakState
  readonly end: SoakState
  readonly fps: number
  readonly lost: number
  readonly repeated: number
  readonly cpuStolen: number | null
}

export async function benchSoak(say: (text: string) => void): Promise<SoakFigures> {
  const rig = await startFeedRig()
  const state = async (): Promise<SoakState> => ({ heapBytes: await rig.heapBytes(), liveFrames: (await rig.stats()).liveFrames })
  try {
    const start = await state()
    const stolen = watchSteal()
    await rig.resetFigures()
    for (let minute = 1; minute <= MINUTES; minute += 1) {
      await rig.meeting.evaluate('new Promise((resolve) => setTimeout(resolve, 60000))')
      say(`soak: ${minute} of ${MINUTES} minutes`)
    }
    const { frames, seconds, lost, repeated } = await rig.figures()
    return { minutes: MINUTES, start, end: await state(), fps: frames / seconds, lost, repeated, cpuStolen: stolen() }
  } finally {
    await rig.close()
  }
}
