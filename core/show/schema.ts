// The stored form of a show. Everything that comes from outside passes through here once. One file, though a long one: the form of the whole
// document in the order of show.ts.
import { z } from 'zod'
import { blendModes, type BlendName } from '../blend/index.ts'
import { steps } from '../steps/index.ts'
import { checkOutline, OutlineError } from '../outline/read-outline.ts'
import type { ParamSpec, ParamSpecs } from '../steps/step.ts'
import { textFamilies } from '../text/text-content.ts'
import { LIMITS, RANGES } from './limits.ts'
import { layerCounts, sceneCircle, walkLayers } from './layer-tree.ts'
import { appearance } from './schema-motion.ts'
import { colour, id, name, number, numberWithin, whole } from './schema-values.ts'
import { borderSides, frameForms, layerParts, sceneMarks, standinCameras, voiceSides, type Layer, type Show, type Step } from './show.ts'

function paramSchema(spec: ParamSpec): z.ZodType {
  switch (spec.type) {
    case 'number':
      return numberWithin(spec.min, spec.max).default(spec.default)
    case 'colour':
      return colour.default(spec.default)
    case 'choice':
      return z
        .enum(spec.options as readonly [string, ...string[]], {
          error: (issue) => `must be one of ${spec.options.join(', ')}, got ${JSON.stringify(issue.input)}`,
        })
        .default(spec.default)
    case 'reference':
      return z
        .string()
        .regex(/^[A-Za-z0-9_-]{0,64}$/, 'must be the name of a look, the SHA-256 of an uploaded file or the id of an input')
        .default(spec.default)
    case 'numbers':
      return z
        .array(numberWithin(-spec.most, spec.most))
        .refine((list) => list.length === 0 || list.length === spec.length, `must hold no number or ${spec.length}`)
        .default([...spec.default])
  }
}

function paramsSchema(specs: ParamSpecs) {
  return z.strictObject(Object.fromEntries(Object.entries(specs).map(([key, spec]) => [key, paramSchema(spec)])))
}

const [firstStep, ...otherSteps] = steps.map((step) => z.strictObject({ id, kind: z.literal(step.kind), on: z.boolean(), params: paramsSchema(step.params) }))
/** One step of a treatment. The list of kinds is core/steps/index.ts. */
const stepSchema = z.discriminatedUnion('kind', [firstStep!, ...otherSteps]) as unknown as z.ZodType<Step>
const treatment = z.array(stepSchema).max(LIMITS.steps)

const device = z.discriminatedUnion('type', [
  z.strictObject({ type: z.literal('standin'), standin: z.enum(standinCameras) }),
  z.strictObject({
    type: z.literal('device'),
    deviceId: z.string().max(200),
    label: z.string().max(200),
    controls: z.record(z.string().max(40), z.union([z.number(), z.string().max(40)])).optional(),
  }),
])

const microphone = z.strictObject({
  device: z.discriminatedUnion('type', [
    z.strictObject({ type: z.literal('none') }),
    z.strictObject({ type: z.literal('standin') }),
    z.strictObject({ type: z.literal('device'), deviceId: z.string().max(200), label: z.string().max(200) }),
  ]),
  echoCancellation: z.boolean(),
  noiseSuppression: z.boolean(),
  autoGainControl: z.boolean(),
  gainDb: number(RANGES.gainDb),
  sides: z.enum(voiceSides),
  delayMs: number(RANGES.delayMs),
})

const cameraInput = z.strictObject({
  id,
  kind: z.literal('camera'),
  name,
  device,
  widthPx: whole(RANGES.canvasWidthPx),
  heightPx: whole(RANGES.canvasHeightPx),
  frameRate: whole(RANGES.frameRate),
  treatment,
})
const asset = z.string().regex(/^[0-9a-f]{64}$/, 'must be the SHA-256 of an uploaded file')
const pictureInput = z.strictObject({
  id,
  kind: z.literal('picture'),
  name,
  asset,
  treatment,
})
const screenInput = z.strictObject({
  id,
  kind: z.literal('screen'),
  name,
  source: z.discriminatedUnion('type', [
    z.strictObject({ type: z.literal('standin') }),
    z.strictObject({ type: z.literal('shared'), label: z.string().max(200) }),
  ]),
  frameRate: whole(RANGES.frameRate),
  treatment,
})
const clipInput = z
  .strictObject({
    id,
    kind: z.literal('clip'),
    name,
    asset,
    fromMs: number(RANGES.clipMs),
    toMs: number(RANGES.clipMs).nullable(),
    rate: number(RANGES.clipRate),
    loops: z.boolean(),
    treatment,
  })
  .refine(({ fromMs, toMs }) => toMs === null || toMs > fromMs, { path: ['toMs'], message: 'must be later than fromMs' })
const colourInput = z.strictObject({ id, kind: z.literal('colour'), name, colour, treatment })
const inputSchema = z.discriminatedUnion('kind', [cameraInput, screenInput, pictureInput, clipInput, colourInput])

const placement = z.strictObject({
  x: number(RANGES.position),
  y: number(RANGES.position),
  width: number(RANGES.size),
  height: number(RANGES.size),
  angleDeg: number(RANGES.angleDeg),
  fit: z.enum(['fit', 'fill', 'stretch']),
})

const crop = z
  .strictObject({ left: number(RANGES.cropShare), top: number(RANGES.cropShare), right: number(RANGES.cropShare), bottom: number(RANGES.cropShare) })
  .refine(({ left, top, right, bottom }) => left + right <= RANGES.cropShare.max && top + bottom <= RANGES.cropShare.max, 'must leave a hundredth of each side')

const shadow = z.strictObject({
  dx: number(RANGES.shadowOffsetPx),
  dy: number(RANGES.shadowOffsetPx),
  blurPx: number(RANGES.blurPx),
  colour,
  opacity: number(RANGES.share),
})

const textContent = z.strictObject({
  family: z.enum(textFamilies),
  align: z.enum(['start', 'centre', 'end']),
  blocks: z
    .array(
      z.strictObject({
        text: z.string().max(LIMITS.textLength),
        weight: number(RANGES.textWeight),
        sizePx: number(RANGES.textSizePx),
        colour,
      }),
    )
    .min(1)
    .max(LIMITS.blocks),
  lineHeight: number(RANGES.lineHeight),
  letterSpacingEm: number(RANGES.letterSpacingEm),
  outline: z.strictObject({ widthPx: number(RANGES.outlinePx), colour }).nullable(),
  shadow: shadow.nullable(),
  plate: z
    .strictObject({
      colour,
      opacity: number(RANGES.share),
      paddingPx: number(RANGES.platePaddingPx),
      accent: colour.nullable(),
    })
    .nullable(),
})

const border = z.strictObject({ widthPx: number(RANGES.borderPx), colour, opacity: number(RANGES.share), side: z.enum(borderSides) })
const frame = z.strictObject({
  form: z.enum(frameForms),
  cornerRadiusPx: number(RANGES.cornerRadiusPx),
  border: border.nullable(),
  shadow: shadow.nullable(),
})

const stops = z
  .array(z.strictObject({ at: number(RANGES.share), colour, opacity: number(RANGES.share) }))
  .min(2, 'must hold at least two colours')
  .max(LIMITS.stops)
  .refine((list) => list.every((stop, i) => i === 0 || stop.at >= list[i - 1]!.at), 'must be in order of "at"')
const fill = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('plain'), colour, opacity: number(RANGES.share) }),
  z.strictObject({ kind: z.literal('linear'), angleDeg: number(RANGES.angleDeg), stops }),
  z.strictObject({ kind: z.literal('radial'), stops }),
])

const outline = z.strictObject({
  path: z
    .string()
    .max(LIMITS.pathLength)
    .superRefine((path, context) => {
      try {
        if (!checkOutline(path)) context.addIssue({ code: 'custom', message: 'must draw something, as "M0 0 L100 0 L50 80 Z" does' })
      } catch (error) {
        if (!(error instanceof OutlineError)) throw error
        context.addIssue({ code: 'custom', message: `must be path data as SVG has it; it ${error.message}` })
      }
    }),
  width: number(RANGES.size),
  height: number(RANGES.size),
  stroke: z.strictObject({ widthPx: number(RANGES.borderPx), colour, opacity: number(RANGES.share) }).nullable(),
})

const layerBase = {
  id,
  name,
  visible: z.boolean(),
  locked: z.boolean(),
  part: z.enum(layerParts).nullable(),
  placement,
  crop: crop.nullable(),
  opacity: number(RANGES.share),
  blend: z.enum(blendModes.map((mode) => mode.name) as [BlendName, ...BlendName[]]),
  frame,
  entrance: appearance.nullable(),
  exit: appearance.nullable(),
  treatment,
}
/** Held to the types of show.ts by the compiler, as all of this is: what is stored and what is worked on cannot drift apart. */
const layerSchema: z.ZodType<Layer> = z.discriminatedUnion('kind', [
  z.strictObject({ ...layerBase, kind: z.literal('input'), inputId: id }),
  z.strictObject({ ...layerBase, kind: z.literal('text'), contentId: id }),
  z.strictObject({ ...layerBase, kind: z.literal('shape'), contentId: id }),
  z.strictObject({
    ...layerBase,
    kind: z.literal('group'),
    get layers(): z.ZodType<Layer[]> {
      return z.array(layerSchema).max(LIMITS.layers)
    },
  }),
  z.strictObject({ ...layerBase, kind: z.literal('scene'), sceneId: id }),
])

const contentSchema = z.discriminatedUnion('kind', [
  z.strictObject({ id, kind: z.literal('text'), text: textContent }),
  z.strictObject({ id, kind: z.literal('shape'), fill, outline: outline.nullable() }),
])

const sceneSchema = z.strictObject({
  id,
  name,
  locked: z.boolean(),
  mark: z.enum(sceneMarks).nullable(),
  notes: z.string().max(LIMITS.notesLength),
  layers: z.array(layerSchema).max(LIMITS.layers),
})

const showObject = z.strictObject({
  format: z.literal('green-room-show'),
  version: z.literal(6),
  name,
  canvas: z.strictObject({
    widthPx: whole(RANGES.canvasWidthPx),
    heightPx: whole(RANGES.canvasHeightPx),
    frameRate: whole(RANGES.frameRate),
  }),
  inputs: z.array(inputSchema).max(LIMITS.inputs),
  contents: z.array(contentSchema).max(LIMITS.contents),
  scenes: z.array(sceneSchema).min(1, 'must hold at least one scene').max(LIMITS.scenes),
  presenter: z.strictObject({
    name: z.string().max(LIMITS.nameLength),
    title: z.string().max(LIMITS.nameLength),
    countdownTo: z
      .string()
      .regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'must be a time of the day, HH:MM')
      .nullable(),
  }),
  microphone,
  holdingCard: z.strictObject({ title: z.string().max(LIMITS.nameLength), detail: z.string().max(LIMITS.nameLength) }),
})

/** A whole show, with every reference checked. */
export const showSchema: z.ZodType<Show> = showObject.superRefine((show, context) => {
  const inputIds = new Set(show.inputs.map((input) => input.id))
  const sceneIds = new Set(show.scenes.map((scene) => scene.id))
  const contentKinds = new Map(show.contents.map((content) => [content.id, content.kind]))
  requireUnique(show.inputs, ['inputs'], context)
  requireUnique(show.scenes, ['scenes'], context)
  requireUnique(show.contents, ['contents'], context)
  const counts = layerCounts(show.scenes)
  show.scenes.forEach((scene, sceneIndex) => {
    const { layers } = scene
    const at = ['scenes', sceneIndex, 'layers']
    requireUnique(
      [...walkLayers(layers)].map(({ layer }) => layer),
      at,
      context,
    )
    for (const { layer, path, depth } of walkLayers(layers)) {
      const place = [...at, ...path]
      if (layer.kind === 'input' && !inputIds.has(layer.inputId)) {
        context.addIssue({ code: 'custom', path: [...place, 'inputId'], message: `must name an input of the show, got "${layer.inputId}"` })
      }
      if ((layer.kind === 'text' || layer.kind === 'shape') && contentKinds.get(layer.contentId) !== layer.kind) {
        context.addIssue({
          code: 'custom',
          path: [...place, 'contentId'],
          message: `must name a ${layer.kind} among the contents of the show, got "${layer.contentId}"`,
        })
      }
      if (layer.kind === 'scene' && !sceneIds.has(layer.sceneId)) {
        context.addIssue({ code: 'custom', path: [...place, 'sceneId'], message: `must name a scene of the show, got "${layer.sceneId}"` })
      }
      if (layer.kind === 'group' && depth >= LIMITS.depth) {
        context.addIssue({ code: 'custom', path: place, message: `must not be a group inside more than ${LIMITS.depth} others` })
      }
    }
    if (counts.get(scene.id)! > LIMITS.shownLayers) {
      const message = `must not come to more than ${LIMITS.shownLayers} layers with the scenes that it shows, got ${counts.get(scene.id)}. Show fewer scenes in it`
      context.addIssue({ code: 'custom', path: ['scenes', sceneIndex], message })
    }
    const circle = sceneCircle(show.scenes, scene.id)
    if (circle !== null) {
      const names = circle.map((sceneId) => `"${show.scenes.find((other) => other.id === sceneId)!.name}"`)
      context.addIssue({
        code: 'custom',
        path: ['scenes', sceneIndex],
        message: `must not show itself: ${names.join(' shows ')}. Take one of these layers out`,
      })
    }
  })
})

function requireUnique(items: readonly { id: string }[], path: (string | number)[], context: z.RefinementCtx): void {
  const seen = new Set<string>()
  items.forEach((item, index) => {
    if (seen.has(item.id)) context.addIssue({ code: 'custom', path: [...path, index, 'id'], message: `must be unique, "${item.id}" came twice` })
    seen.add(item.id)
  })
}

/** A chain of steps as a file: what `treat` reads, and what presets are. */
export const chainSchema = z.strictObject({ format: z.literal('green-room-chain'), version: z.literal(2), name: name.optional(), steps: treatment })
export type ChainFile = z.infer<typeof chainSchema>

/** Every issue of a failed check in one line each: "scenes.0.name must not be empty". */
export function issueLines(error: z.ZodError): string[] {
  return error.issues.map((issue) => `${issue.path.join('.') || 'file'}: ${issue.message}`)
}
