import type { SpatialWork } from '../../../core/steps/step.ts'
import { liveDenoise } from './denoise.ts'
import { liveEdgeSpill } from './edge-spill.ts'
import { liveFade } from './fade.ts'
import { liveFieldKey } from './field-key.ts'
import { liveFraming } from './framing.ts'
import type { LiveTools, LiveWork, MakeLiveWork } from './live-work.ts'
import { liveMatteEdge } from './matte-edge.ts'
import { liveRoom } from './room.ts'
import { liveSharpen } from './sharpen.ts'

/** How each kind of spatial work is done in real time without a GPU. */
const makers: Readonly<Record<string, MakeLiveWork<never>>> = {
  framing: liveFraming,
  crop: liveFade,
  denoise: liveDenoise,
  chromaKey: liveFieldKey,
  matteEdge: liveMatteEdge,
  spill: liveEdgeSpill,
  room: liveRoom,
  sharpen: liveSharpen,
}

/** The live form of a spatial work. Throws a RangeError for a kind that has none. */
export function makeLiveWork(tools: LiveTools, work: SpatialWork): LiveWork {
  const make = makers[work.kind] as MakeLiveWork | undefined
  if (make === undefined) throw new RangeError(`the CPU executor has no way to do "${work.kind}"`)
  return make(tools, work)
}
