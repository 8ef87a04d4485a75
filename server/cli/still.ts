// npm run -s still -- --show show.json --scene ID [--time-ms 0] [--asset-dir DIR] --out x.png [--executor …]
import path from 'node:path'
import type { Picture, RgbaPicture } from '../../core/picture/picture.ts'
import type { SourceInfo } from '../../core/plan/frame-plan.ts'
import { plainSourceId, inputSourceId, planFrame } from '../../core/plan/plan-frame.ts'
import { renderReference, toRgba8 } from '../../core/render/render-reference.ts'
import { readShow } from '../../core/show/migrate.ts'
import { layersShownBy } from '../../core/show/layer-tree.ts'
import type { Input, Show } from '../../core/show/show.ts'
import { CpuExecutor } from '../../engine/cpu/cpu-executor.ts'
import { Treatments } from '../../engine/cpu/treatments.ts'
import { nodeCamera } from '../../standins/camera/node-camera.ts'
import { InputError, readExecutor, readOptions, runCommand } from './arguments.ts'
import { readJson, readPicture, writePng } from './files.ts'
import { loadFonts, nodeHeap, nodeTextPicture } from './node-engine.ts'
import { onePixel, requireAll, showResources } from './resources.ts'

/** Renders a scene of a show file as a still. */
export async function stillCommand(argv: readonly string[]): Promise<void> {
  const options = readOptions(argv, {
    show: { isRequired: true, hint: 'a show as a JSON file (docs/formats.md)' },
    scene: { isRequired: true, hint: 'the id of a scene' },
    out: { isRequired: true, hint: 'the PNG file to write' },
    'time-ms': { isRequired: false, hint: 'a time in milliseconds' },
    'asset-dir': { isRequired: false, hint: 'the folder with pictures, each named by its SHA-256' },
    executor: { isRequired: false, hint: 'reference or cpu' },
  })
  const executor = readExecutor(options.executor)
  const timeMs = Number(options['time-ms'] ?? 0)
  if (!Number.isFinite(timeMs) || timeMs < 0) throw new InputError(`--time-ms must be a number from 0, got "${options['time-ms']}".`)
  const show = await readJson(options.show!, 'show', readShow)
  const scene = show.scenes.find((candidate) => candidate.id === options.scene)
  if (scene === undefined) {
    throw new InputError(`--scene: the show has no scene "${options.scene}". It has ${show.scenes.map(({ id, name }) => `${id} (${name})`).join(', ')}.`)
  }
  const pictures = await loadSources(usedInputs(show, scene.id), timeMs, options['asset-dir'])
  const infos = new Map([...pictures].map(([id, picture]) => [id, infoOf(picture)] as const))
  const plan = planFrame(show, { scene }, timeMs, infos)
  const calls = plan.nodes.flatMap((node) => (node.kind === 'stack' ? [] : node.steps))
  const resources = await showResources(calls, show.inputs, options['asset-dir'])
  const inFolder = 'Name the folder that holds it in --asset-dir.'
  requireAll(calls, resources, { look: inFolder, plate: inFolder, input: 'Switch the step off in the show file.' })
  loadFonts()
  for (const job of plan.texts) pictures.set(job.sourceId, nodeTextPicture(job))
  const contextOf = (_sourceId: string | null, widthPx: number, heightPx: number) => ({ context: { widthPx, heightPx, ...resources } })
  if (executor === 'reference') return writePng(options.out!, toRgba8(renderReference(plan, pictures, contextOf)))
  const frames = new Map(
    [...pictures].map(([id, picture]) => [id, { picture, version: 1, isLive: id.startsWith('input:') && picture.format === 'i420' }] as const),
  )
  const treatments = new Treatments(await nodeHeap())
  treatments.setResources(resources)
  await writePng(options.out!, new CpuExecutor(treatments).render(plan, frames))
}

function usedInputs(show: Show, sceneId: string): Input[] {
  const scene = show.scenes.find((candidate) => candidate.id === sceneId)!
  const layers = scene.layers.filter((layer) => layer.visible).flatMap((layer) => [layer, ...layersShownBy(show, layer)])
  const ids = new Set(layers.flatMap((layer) => (layer.kind === 'input' && layer.visible ? [layer.inputId] : [])))
  return show.inputs.filter((input) => ids.has(input.id))
}

async function loadSources(inputs: readonly Input[], timeMs: number, assetDir: string | undefined): Promise<Map<string, Picture>> {
  const pictures = new Map<string, Picture>()
  for (const input of inputs) {
    if (input.kind === 'colour') {
      pictures.set(plainSourceId(input.colour), onePixel(input.colour))
    } else if (input.kind === 'picture') {
      if (assetDir === undefined) throw new InputError(`--asset-dir is missing: the scene shows the picture "${input.name}".`)
      pictures.set(inputSourceId(input.id), await readPicture(path.join(assetDir, input.asset), 'asset-dir'))
    } else {
      pictures.set(inputSourceId(input.id), await cameraStill(input, timeMs))
    }
  }
  return pictures
}

async function cameraStill(input: Extract<Input, { kind: 'camera' }>, timeMs: number): Promise<Picture> {
  if (input.device.type !== 'standin') {
    throw new InputError(`"${input.name}" is a real camera, which a still can't open. Give it the stand-in device in the show file.`)
  }
  const { widthPx, heightPx, frameRate } = input
  const camera = await nodeCamera({ widthPx, heightPx, frameRate, standin: input.device.standin })
  return camera.picture(timeMs)
}

function infoOf(picture: Picture): SourceInfo {
  const { widthPx, heightPx } = picture
  return { widthPx, heightPx, isOpaque: picture.format === 'i420' || isOpaque(picture) }
}

function isOpaque(picture: RgbaPicture): boolean {
  for (let at = 3; at < picture.data.length; at += 4) if (picture.data[at] !== 255) return false
  return true
}

await runCommand(stillCommand)
