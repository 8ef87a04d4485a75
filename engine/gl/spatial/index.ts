import type { SpatialWork } from '../../../core/steps/step.ts'
import { glDenoise } from './denoise.ts'
import { glEdgeSpill } from './edge-spill.ts'
import { glFade } from './fade.ts'
import { glFieldKey } from './field-key.ts'
import { glFraming } from './framing.ts'
import type { GlTools, GlWork, MakeGlWork } from './gl-work.ts'
import { glMatteEdge } from './matte-edge.ts'
import { glRoom } from './room.ts'
import { glSharpen } from './sharpen.ts'

/** How each kind of spatial work is done on a graphics card. */
const makers: Readonly<Record<string, MakeGlWork<never>>> = {
  framing: glFraming,
  crop: glFade,
  denoise: glDenoise,
  chromaKey: glFieldKey,
  matteEdge: glMatteEdge,
  spill: glEdgeSpill,
  room: glRoom,
  sharpen: glSharpen,
}

/** The form of a spatial work for the graphics card. Throws a RangeError for a kind that has none. */
export function makeGlWork(tools: GlTools, work: SpatialWork): GlWork {
  const make = makers[work.kind] as MakeGlWork | undefined
  if (make === undefined) throw new RangeError(`the graphics card has no way to do "${work.kind}"`)
  return make(tools, work)
}
