// npm run -s still -- --show show.json --scene ID [--time-ms 0] [--from ID --transition dissolve] [--asset-dir DIR] --out x.png [--executor …]
import { isScreen } from '../../core/inputs/screen.ts'
import { isCamera, type CameraInput } from '../../core/inputs/camera.ts'
import type { Still } from '../../core/inputs/input.ts'
import { inputKindOf } from '../../core/inputs/index.ts'
import { inputIdOf, pageIdOf } from '../../core/layers/index.ts'
import type { SourceInfo } from '../../core/picture/source.ts'
import path from 'node:path'
import { outlinePicture } from '../../core/outline/outline-picture.ts'
import type { Picture, RgbaPicture } from '../../core/picture/picture.ts'
import { planFrame } from '../../core/stage/plan-frame.ts'
import { renderReference, toRgba8 } from '../../core/render/render-reference.ts'
import { readShow } from '../../core/show/migrate.ts'
import { layersShownBy } from '../../core/layers/tree.ts'
import { transitionSchema } from '../../core/transitions/schema.ts'
import { issueLines } from '../../core/show/schema.ts'
import type { Input, Scene, Show } from '../../core/show/show.ts'
import { goTo, isTransition, type Stage } from '../../core/stage/stage.ts'
import { usualTransitions, type Transition } from '../../core/transitions/index.ts'
import { CpuExecutor } from '../../engine/cpu/cpu-executor.ts'
import { Treatments } from '../../engine/cpu/treatments.ts'
import { wallAt } from '../../engine/sources/wall-clock.ts'
import { nodeCamera } from '../../standins/camera/node-camera.ts'
import { nodeScreen } from '../../standins/screen/node-screen.ts'
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
    'time-ms': { isRequired: false, hint: 'milliseconds since the scene came, and since the cameras began' },
    from: { isRequired: false, hint: 'the id of the scene that it follows, with --transition' },
    transition: { isRequired: false, hint: `how it follows: ${Object.keys(usualTransitions).join(', ')}, or a transition as JSON` },
    'asset-dir': { isRequired: false, hint: 'the folder with pictures, each named by its SHA-256' },
    executor: { isRequired: false, hint: 'reference or cpu' },
  })
  const executor = readExecutor(options.executor)
  const timeMs = Number(options['time-ms'] ?? 0)
  if (!Number.isFinite(timeMs) || timeMs < 0) throw new InputError(`--time-ms must be a number from 0, got "${options['time-ms']}".`)
  const show = await readJson(options.show!, 'show', readShow)
  const scene = sceneFor(show, 'scene', options.scene!)
  const stage = stageOf(show, scene, options)
  const scenes = isTransition(stage) ? [sceneFor(show, 'from', options.from!), scene] : [scene]
  const pictures = await loadSources(usedInputs(show, scenes, isTransition(stage) ? stage.transition : null), timeMs, options['asset-dir'])
  const infos = new Map([...pictures].map(([id, picture]) => [id, infoOf(picture)] as const))
  const plan = planFrame(show, stage, timeMs, infos, { wall: wallAt(timeMs) })
  const calls = plan.nodes.flatMap((node) => (node.kind === 'stack' ? [] : node.steps))
  const resources = await showResources(calls, show.inputs, options['asset-dir'])
  const inFolder = 'Name the folder that holds it in --asset-dir.'
  requireAll(calls, resources, { look: inFolder, plate: inFolder, input: 'Switch the step off in the show file.' })
  loadFonts()
  for (const job of plan.texts) pictures.set(job.sourceId, nodeTextPicture(job))
  for (const job of plan.outlines) pictures.set(job.sourceId, outlinePicture(job.outline, job.widthPx, job.heightPx))
  const contextOf = (_sourceId: string | null, widthPx: number, heightPx: number) => ({ context: { widthPx, heightPx, ...resources } })
  if (executor === 'reference') return writePng(options.out!, toRgba8(renderReference(plan, pictures, contextOf)))
  const frames = new Map(
    [...pictures].map(([id, picture]) => [id, { picture, version: 1, isLive: id.startsWith('input:') && picture.format === 'i420' }] as const),
  )
  const treatments = new Treatments(await nodeHeap())
  treatments.setResources(resources)
  await writePng(options.out!, new CpuExecutor(treatments).render(plan, frames))
}

function sceneFor(show: Show, option: string, sceneId: string): Scene {
  const scene = show.scenes.find((candidate) => candidate.id === sceneId)
  if (scene !== undefined) return scene
  throw new InputError(`--${option}: the show has no scene "${sceneId}". It has ${show.scenes.map(({ id, name }) => `${id} (${name})`).join(', ')}.`)
}

/** The scene as it rests; with a time, as it has come at 0; with another scene, on the way from that. */
function stageOf(show: Show, scene: Scene, options: Readonly<Record<string, string | undefined>>): Stage {
  const { from, transition } = options
  if ((from === undefined) !== (transition === undefined)) throw new InputError('--from and --transition go together: name both, or neither.')
  if (from !== undefined && transition !== undefined) return goTo({ scene: sceneFor(show, 'from', from) }, scene, readTransition(transition), 0)
  return options['time-ms'] === undefined ? { scene } : { scene, enteredMs: 0 }
}

function readTransition(text: string): Transition {
  if (Object.hasOwn(usualTransitions, text)) return usualTransitions[text as keyof typeof usualTransitions]
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch {
    throw new InputError(`--transition must be ${Object.keys(usualTransitions).join(', ')}, or a transition as JSON, got "${text}".`)
  }
  const checked = transitionSchema.safeParse(json)
  if (checked.success) return checked.data
  throw new InputError(`--transition: ${issueLines(checked.error).join('; ')}.`)
}

/** An input, and the page of it that a layer stays at, if one does. */
interface UsedInput {
  readonly input: Input
  readonly pageId: string | null
}

function usedInputs(show: Show, scenes: readonly Scene[], transition: Transition | null): UsedInput[] {
  const layers = scenes.flatMap((scene) => scene.layers.filter((layer) => layer.visible).flatMap((layer) => [layer, ...layersShownBy(show, layer)]))
  const used = layers.filter((layer) => layer.visible).map((layer) => ({ id: inputIdOf(layer), pageId: pageIdOf(layer) }))
  if (transition?.kind === 'pictureWipe') used.push({ id: transition.inputId, pageId: null })
  return show.inputs.flatMap((input) => used.filter(({ id }) => id === input.id).map(({ pageId }) => ({ input, pageId })))
}

async function loadSources(inputs: readonly UsedInput[], timeMs: number, assetDir: string | undefined): Promise<Map<string, Picture>> {
  const pictures = new Map<string, Picture>()
  for (const { input, pageId } of inputs) {
    const { sourceId, still } = inputKindOf(input)
    if (pictures.has(sourceId(input, pageId))) continue
    const known = still(input, pageId)
    if (known?.type === 'asset' && assetDir === undefined) throw new InputError(`--asset-dir is missing: the scene shows the picture "${input.name}".`)
    const picture = known === null ? await liveStill(input, timeMs) : await stillPicture(known, assetDir!)
    pictures.set(sourceId(input, pageId), picture)
  }
  return pictures
}

function stillPicture(still: Still, assetDir: string): RgbaPicture | Promise<RgbaPicture> {
  return still.type === 'colour' ? onePixel(still.colour) : readPicture(path.join(assetDir, still.asset), 'asset-dir')
}

/** A moment of a stand-in. Throws an InputError for what only a studio can open. */
function liveStill(input: Input, timeMs: number): Promise<Picture> {
  if (isCamera(input)) return cameraStill(input, timeMs)
  if (isScreen(input) && input.source.type === 'standin') return nodeScreen(timeMs)
  throw new InputError(`"${input.name}" is a ${input.kind}, which a still can't show. Hide its layer in the show file.`)
}

async function cameraStill(input: CameraInput, timeMs: number): Promise<Picture> {
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
