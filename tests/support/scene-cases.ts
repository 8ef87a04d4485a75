// The demo's scenes with pictures for everything in them, stills and texts included, as executors are given them. Node only.
import { inputSourceId, plainSourceId } from '../../core/inputs/source-ids.ts'
import type { SourceId, SourceInfo } from '../../core/picture/source.ts'
import sharp from 'sharp'
import { outlinePicture } from '../../core/outline/outline-picture.ts'
import { parseHex } from '../../core/colour/hex.ts'
import type { Picture, RgbaPicture } from '../../core/picture/picture.ts'
import type { FramePlan } from '../../core/plan/frame-plan.ts'
import { planFrame } from '../../core/stage/plan-frame.ts'
import type { Scene, Show } from '../../core/show/show.ts'
import { demoPictures } from '../../demo/seed.ts'
import { nodeTextPicture } from '../../server/cli/node-engine.ts'

export interface SceneCase {
  readonly plan: FramePlan
  readonly pictures: Map<SourceId, Picture>
}

/** Pictures of the demo's inputs: the camera's as given, drawn ones `widthPx` wide at most. */
export async function demoInputPictures(show: Show, camera: Picture, widthPx = 1920): Promise<Map<SourceId, Picture>> {
  const files = demoPictures()
  const decode = async (bytes: Buffer): Promise<RgbaPicture> => {
    const { data, info } = await sharp(bytes).resize({ width: widthPx, withoutEnlargement: true }).ensureAlpha().raw().toBuffer({ resolveWithObject: true })
    return { format: 'rgba', widthPx: info.width, heightPx: info.height, data: new Uint8Array(data) }
  }
  const named: Readonly<Record<string, Buffer>> = { 'Apiary wall': files.wall, 'Society mark': files.mark, 'Evening meadow': files.meadow }
  const pictures = new Map<SourceId, Picture>()
  for (const input of show.inputs) {
    if (input.kind === 'camera') pictures.set(inputSourceId(input.id), camera)
    else if (input.kind === 'picture') pictures.set(inputSourceId(input.id), await decode(named[input.name]!))
    else if (input.kind === 'colour') {
      const [red, green, blue] = parseHex(input.colour)
      pictures.set(plainSourceId(input.colour), { format: 'rgba', widthPx: 1, heightPx: 1, data: Uint8Array.of(red * 255, green * 255, blue * 255, 255) })
    }
  }
  return pictures
}

/** A scene planned at a share of its size, with its texts laid out. */
export function sceneCase(show: Show, scene: Scene, inputs: ReadonlyMap<SourceId, Picture>, factor = 1): SceneCase {
  const infos = new Map<SourceId, SourceInfo>(
    [...inputs].map(([id, { widthPx, heightPx, format }]) => [id, { widthPx, heightPx, isOpaque: format === 'i420' }]),
  )
  const plan = planFrame(show, { scene }, 0, infos, { scale: factor })
  const pictures = new Map(inputs)
  for (const job of plan.texts) pictures.set(job.sourceId, nodeTextPicture(job))
  for (const job of plan.outlines) pictures.set(job.sourceId, outlinePicture(job.outline, job.widthPx, job.heightPx))
  return { plan, pictures }
}
