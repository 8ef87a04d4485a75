// The scene that frame costs are measured on: a still wall; a camera with crop, tone, key and spill in
// a rounded frame; a title on its plate; the society's mark.
import { inputSourceId } from '../../core/inputs/source-ids.ts'
import type { SourceId, SourceInfo } from '../../core/picture/source.ts'
import sharp, { type Sharp } from 'sharp'
import type { I420Picture, RgbaPicture } from '../../core/picture/picture.ts'
import type { FramePlan } from '../../core/plan/frame-plan.ts'
import { planFrame } from '../../core/stage/plan-frame.ts'
import type { Scene, Show } from '../../core/show/show.ts'
import { updateLayer } from '../../core/show/edits.ts'
import { demoPictures } from '../../demo/seed.ts'
import { loadFonts, nodeTextPicture } from '../../server/cli/node-engine.ts'
import { sceneNamed, testShow } from '../support/shows.ts'
import { nodeCamera } from '../../standins/camera/node-camera.ts'

export const CROP_PERCENT = { left: 13, right: 10 } as const
const CORNER_RADIUS_PX = 30

export interface ReferenceScene {
  readonly show: Show
  readonly scene: Scene
  readonly infos: ReadonlyMap<SourceId, SourceInfo>
  readonly plan: FramePlan
  readonly cameraId: string
  /** Still pictures by source. */
  readonly stills: ReadonlyMap<string, RgbaPicture>
  readonly wall: RgbaPicture
  readonly title: { readonly picture: RgbaPicture; readonly x: number; readonly y: number }
  readonly mark: { readonly picture: RgbaPicture; readonly x: number; readonly y: number; readonly sizePx: number }
}

/** Builds the scene for a canvas of this width (16:9). */
export async function referenceScene(widthPx: number): Promise<ReferenceScene> {
  loadFonts()
  const show = testShow()
  const factor = widthPx / show.canvas.widthPx
  const welcome = sceneNamed(show, 'Welcome')
  const rounded = updateLayer(show, welcome.id, welcome.layers[1]!.id, (layer) => ({ ...layer, frame: { ...layer.frame, cornerRadiusPx: CORNER_RADIUS_PX } }))
  const scene = sceneNamed(rounded, 'Welcome')
  const files = demoPictures()
  const heightPx = Math.round(show.canvas.heightPx * factor)
  const wall = await decode(sharp(files.wall).resize(widthPx, heightPx))
  const mark = await decode(sharp(files.mark))
  const id = (name: string) => inputSourceId(show.inputs.find((input) => input.name === name)!.id)
  const cameraId = id('Desk camera')
  const infos = new Map([
    [cameraId, { widthPx, heightPx, isOpaque: true }],
    [id('Apiary wall'), { widthPx, heightPx, isOpaque: true }],
    [id('Society mark'), { widthPx: 400, heightPx: 400, isOpaque: false }],
  ])
  const plan = planFrame(rounded, { scene }, 0, infos, { scale: factor })
  const [titleJob] = plan.texts
  const titlePicture = nodeTextPicture(titleJob!)
  const placeOf = (name: string) => scene.layers.find((layer) => layer.name === name)!.placement
  const at = (value: number) => Math.round(value * factor)
  return {
    show: rounded,
    scene,
    infos,
    plan,
    cameraId,
    stills: new Map([
      [id('Apiary wall'), wall],
      [id('Society mark'), mark],
      [titleJob!.sourceId, titlePicture],
    ]),
    wall,
    title: { picture: titlePicture, x: at(placeOf('Class title').x), y: at(placeOf('Class title').y) },
    mark: {
      picture: mark,
      x: at(placeOf('Society mark').x),
      y: at(placeOf('Society mark').y),
      sizePx: at(placeOf('Society mark').width),
    },
  }
}

/** Distinct frames of the stand-in camera. */
export async function cameraFrames(widthPx: number, heightPx: number, count: number): Promise<I420Picture[]> {
  const camera = await nodeCamera({ widthPx, heightPx })
  return Array.from({ length: count }, (_, frame) => camera.picture((frame * 1000) / 30 + 1))
}

async function decode(image: Sharp): Promise<RgbaPicture> {
  const { data, info } = await image.ensureAlpha().raw().toBuffer({ resolveWithObject: true })
  return { format: 'rgba', widthPx: info.width, heightPx: info.height, data: new Uint8Array(data) }
}
