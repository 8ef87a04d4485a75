// The stored form of a show. Everything that comes from outside passes through here once, in the order of show.ts.
import { z } from 'zod'
import { inputSchema } from '../inputs/index.ts'
import { childrenOf, contentIdOf, contentSchema, inputIdOf, layerSchema, sceneIdOf } from '../layers/index.ts'
import { layerCounts, sceneCircle, walkLayers } from '../layers/tree.ts'
import { LIMITS, RANGES } from '../schema/limits.ts'
import { id, name, number, whole } from '../schema/values.ts'
import { treatmentSchema } from '../steps/schema.ts'
import { transitionSchema } from '../transitions/schema.ts'
import { sceneMarks, voiceSides, type Show } from './show.ts'
import { inputOfTransition, showTransitionsSchema, storedTransitions } from './show-transitions.ts'
import { styleSchema } from './style.ts'

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

const sceneSchema = z.strictObject({
  id,
  name,
  locked: z.boolean(),
  mark: z.enum(sceneMarks).nullable(),
  notes: z.string().max(LIMITS.notesLength),
  graphic: z.strictObject({ key: z.string().max(40).nullable() }).nullable(),
  transition: transitionSchema.nullable(),
  layers: z.array(layerSchema).max(LIMITS.layers),
})

const showObject = z.strictObject({
  format: z.literal('green-room-show'),
  version: z.literal(10),
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
  style: styleSchema,
  transitions: showTransitionsSchema,
  favourites: z
    .array(z.discriminatedUnion('type', [z.strictObject({ type: z.literal('drawn'), name }), z.strictObject({ type: z.literal('input'), inputId: id })]))
    .max(LIMITS.favourites),
  microphone,
  holdingCard: z.strictObject({ title: z.string().max(LIMITS.nameLength), detail: z.string().max(LIMITS.nameLength) }),
})

/** A whole show, with every reference checked. */
export const showSchema: z.ZodType<Show> = showObject.superRefine((show, context) => {
  const inputIds = new Set(show.inputs.map((input) => input.id))
  const sceneIds = new Set(show.scenes.map((scene) => scene.id))
  const contentKinds = new Map<string, string>(show.contents.map((content) => [content.id, content.kind]))
  requireUnique(show.inputs, ['inputs'], context)
  requireUnique(show.scenes, ['scenes'], context)
  requireUnique(show.contents, ['contents'], context)
  if (show.scenes.length > 0 && show.scenes[0]!.graphic !== null) {
    context.addIssue({
      code: 'custom',
      path: ['scenes', 0, 'graphic'],
      message: 'must be null: a show begins with a scene, and graphics come after all scenes',
    })
  }
  show.scenes.forEach((scene, index) => {
    if (index === 0 || scene.graphic !== null || show.scenes[index - 1]!.graphic === null) return
    context.addIssue({ code: 'custom', path: ['scenes', index], message: 'must come before the graphics' })
  })
  requireKnown(show, inputIds, sceneIds, context)
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
      const [inputId, contentId, sceneId] = [inputIdOf(layer), contentIdOf(layer), sceneIdOf(layer)]
      if (inputId !== null && !inputIds.has(inputId)) {
        context.addIssue({ code: 'custom', path: [...place, 'inputId'], message: `must name an input of the show, got "${inputId}"` })
      }
      if (contentId !== null && contentKinds.get(contentId) !== layer.kind) {
        context.addIssue({
          code: 'custom',
          path: [...place, 'contentId'],
          message: `must name a ${layer.kind} among the contents of the show, got "${contentId}"`,
        })
      }
      if (sceneId !== null && !sceneIds.has(sceneId)) {
        context.addIssue({ code: 'custom', path: [...place, 'sceneId'], message: `must name a scene of the show, got "${sceneId}"` })
      }
      if (childrenOf(layer) !== null && depth >= LIMITS.depth) {
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

/** What transitions and favourites name must be there. */
function requireKnown(show: Show, inputIds: ReadonlySet<string>, sceneIds: ReadonlySet<string>, context: z.RefinementCtx): void {
  const refuse = (path: readonly (string | number)[], message: string) => context.addIssue({ code: 'custom', path: [...path], message })
  const pairs = new Set<string>()
  show.transitions.pairs.forEach(({ fromId, toId }, index) => {
    const path = ['transitions', 'pairs', index]
    for (const [field, sceneId] of Object.entries({ fromId, toId })) {
      if (!sceneIds.has(sceneId)) refuse([...path, field], `must name a scene of the show, got "${sceneId}"`)
    }
    const pair = `${fromId} ${toId}`
    if (pairs.has(pair)) refuse(path, 'must be the only one from this scene to that')
    pairs.add(pair)
  })
  for (const [path, transition] of storedTransitions(show)) {
    const inputId = inputOfTransition(transition)
    if (inputId !== null && !inputIds.has(inputId)) refuse([...path, 'inputId'], `must name an input of the show, got "${inputId}"`)
  }
  show.favourites.forEach((favourite, index) => {
    if (favourite.type === 'input' && !inputIds.has(favourite.inputId)) {
      refuse(['favourites', index, 'inputId'], `must name an input of the show, got "${favourite.inputId}"`)
    }
  })
}

function requireUnique(items: readonly { id: string }[], path: (string | number)[], context: z.RefinementCtx): void {
  const seen = new Set<string>()
  items.forEach((item, index) => {
    if (seen.has(item.id)) context.addIssue({ code: 'custom', path: [...path, index, 'id'], message: `must be unique, "${item.id}" came twice` })
    seen.add(item.id)
  })
}

/** A chain of steps as a file: what `treat` reads, and what presets are. */
export const chainSchema = z.strictObject({ format: z.literal('green-room-chain'), version: z.literal(2), name: name.optional(), steps: treatmentSchema })
export type ChainFile = z.infer<typeof chainSchema>

/** Every issue of a failed check in one line each: "scenes.0.name must not be empty". */
export function issueLines(error: z.ZodError): string[] {
  return error.issues.map((issue) => `${issue.path.join('.') || 'file'}: ${issue.message}`)
}
