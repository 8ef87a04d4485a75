// Pretend kinds of layer and input, a step, a transition, a command and an output, added to the program as it is: few files change, and none of
// them can be left out.
import { describe, expect, it, vi } from 'vitest'
import { languages } from '../../app/locales/languages.ts'
import { Compiled, type Change } from './compiled.ts'

const afterLine = (line: string, added: string) => (text: string) => {
  if (text.split(line).length !== 2) throw new Error(`expected one line "${line}"`)
  return text.replace(line, `${line}${added}`)
}
const changed = (from: string, to: string) => (text: string) => {
  if (text.split(from).length !== 2) throw new Error(`expected one "${from}"`)
  return text.replace(from, () => to)
}
const both = (one: (text: string) => string, other: (text: string) => string) => (text: string) => other(one(text))

/** A layer that shows how far a talk has come. */
const gauge: Change = {
  'core/layers/gauge.ts': `
import { z } from 'zod'
import type { LayerBase, LayerDefinition } from './layer.ts'
import { layerBase } from './schema.ts'

export interface GaugeLayer extends LayerBase {
  readonly kind: 'gauge'
  readonly share: number
}

export const gauge: LayerDefinition<'gauge'> = {
  kind: 'gauge',
  schema: () => z.strictObject({ ...layerBase, kind: z.literal('gauge'), share: z.number() }),
  content: null,
  inputId: () => null,
  pageId: () => null,
  sceneId: () => null,
  contentId: () => null,
  children: null,
  role: () => 'graphic',
  weight: () => 'colour',
  pageRank: () => null,
  coverage: () => 'partial',
  naturalSize: (_layer, { canvas }) => canvas,
  isEmpty: ({ share }) => share === 0,
  isText: false,
  hasPicture: () => false,
  hasProportions: false,
}
`,
  'core/layers/layer.ts': both(
    afterLine('  readonly scene: SceneLayer\n', '  readonly gauge: GaugeLayer\n'),
    afterLine("import type { GroupLayer } from './group.ts'\n", "import type { GaugeLayer } from './gauge.ts'\n"),
  ),
  'core/layers/index.ts': both(
    changed('= { input, text, shape, group, scene }', '= { input, text, shape, group, scene, gauge }'),
    afterLine("import { group } from './group.ts'\n", "import { gauge } from './gauge.ts'\n"),
  ),
  'core/compose/gauge.ts': `
import { boxToCanvas } from '../box/placement.ts'
import { putFramed } from './frame.ts'
import { scaledPlacement, type PutLayer } from './place.ts'

export const putGauge: PutLayer<'gauge'> = (place, layer) => {
  const placement = scaledPlacement(layer.placement, place.scale)
  const width = placement.width * layer.share
  putFramed(place, layer, boxToCanvas(placement), width, placement.height, () => ({ kind: 'plain', colour: [1, 1, 1], opacity: 1 }))
}
`,
  'core/compose/index.ts': both(
    changed('scene: putScene }', 'scene: putScene, gauge: putGauge }'),
    afterLine("import { putGroup } from './group.ts'\n", "import { putGauge } from './gauge.ts'\n"),
  ),
  'app/kinds/layers/index.ts': afterLine(
    '  scene: { section: LinkedSceneSection, holds: () => null, opens: null },\n',
    '  gauge: { section: null, holds: () => null, opens: null },\n',
  ),
  'app/locales/en/build.ts': afterLine("      scene: 'Scene',\n", "      gauge: 'Gauge',\n"),
  'app/locales/de/build.ts': afterLine("      scene: 'Szene',\n", "      gauge: 'Anzeige',\n"),
}

/** An input whose picture is a map. */
const map: Change = {
  'core/inputs/map.ts': `
import { z } from 'zod'
import type { InputBase, InputDefinition } from './input.ts'
import { assetSchema, inputBase } from './schema.ts'
import { inputSourceId } from './source-ids.ts'

export interface MapInput extends InputBase {
  readonly kind: 'map'
  readonly asset: string
}

export const map: InputDefinition<'map'> = {
  kind: 'map',
  schema: z.strictObject({ ...inputBase, kind: z.literal('map'), asset: assetSchema }),
  subject: 'page',
  pageRank: 0,
  isPageWhenWhole: true,
  canBeMark: false,
  fit: 'fit',
  hasPicture: true,
  sourceId: ({ id }) => inputSourceId(id),
  still: ({ asset }) => ({ type: 'asset', asset }),
  files: ({ asset }) => [asset],
  ahead: () => [],
  inCover: (input) => input,
  placeholder: 'window',
}
`,
  'core/inputs/input.ts': both(
    afterLine('  readonly colour: ColourInput\n', '  readonly map: MapInput\n'),
    afterLine("import type { ColourInput } from './colour.ts'\n", "import type { MapInput } from './map.ts'\n"),
  ),
  'core/inputs/index.ts': both(
    changed('= { camera, screen, deck, picture, clip, colour }', '= { camera, screen, deck, picture, clip, colour, map }'),
    afterLine("import { colour } from './colour.ts'\n", "import { map } from './map.ts'\n"),
  ),
  'app/kinds/inputs/index.ts': changed(
    '  picture: { icon: Image, section: null, state: still },\n',
    '  picture: { icon: Image, section: null, state: still },\n  map: { icon: Image, section: null, state: still },\n',
  ),
  'app/locales/en/build.ts': afterLine("      scene: 'Scene',\n", "      map: 'Map',\n"),
  'app/locales/de/build.ts': afterLine("      scene: 'Szene',\n", "      map: 'Karte',\n"),
}

// The first compilation reads the types of every library.
/** A step that inverts a picture. */
const negative: Change = {
  'core/steps/negative/index.ts': `
import { pointWork, type ParamSpecs, type StepDefinition } from '../step.ts'

const params = { amount: { type: 'number', min: 0, max: 1, step: 0.01, default: 1, unit: 'share' } } as const satisfies ParamSpecs
const source = 'vec4 STEP(vec4 pixel) { return vec4(mix(pixel.rgb, 1.0 - pixel.rgb, VALUE[0]), pixel.a); }'

export const negative: StepDefinition<'negative', typeof params> = {
  kind: 'negative',
  params,
  makesMatte: () => false,
  work: ({ amount }) =>
    pointWork((pixel) => {
      for (const channel of [0, 1, 2]) pixel[channel] = pixel[channel]! + (1 - 2 * pixel[channel]!) * amount
    }, source, () => [amount]),
}
`,
  'core/steps/index.ts': both(
    changed('look, sharpen] as const', 'look, sharpen, negative] as const'),
    afterLine("import { matteEdge } from './matte-edge/index.ts'\n", "import { negative } from './negative/index.ts'\n"),
  ),
  'app/bench/step-groups.ts': changed("'look', 'sharpen']", "'look', 'sharpen', 'negative']"),
  'app/locales/en/steps.ts': afterLine(
    'export const stepWords = {\n',
    "  negative: { name: 'Negative', brief: 'Turn light and dark round', purpose: 'Turns light and dark round.', params: { amount: 'Amount' }, options: {} },\n",
  ),
  'app/locales/de/steps.ts': afterLine(
    'export const stepWords: Words<typeof englishSteps> = {\n',
    "  negative: { name: 'Negativ', brief: 'Hell und Dunkel tauschen', purpose: 'Tauscht Hell und Dunkel.', params: { amount: 'Stärke' }, options: {} },\n",
  ),
}

/** A way from one scene to the next: the next one drops in from above. */
const drop: Change = {
  'core/transitions/drop.ts': `
import { z } from 'zod'
import type { TransitionBase, TransitionDefinition } from './definition.ts'
import { nextItems } from './whole.ts'

export interface Drop extends TransitionBase {
  readonly kind: 'drop'
  readonly bounces: number
}

export const drop: TransitionDefinition<Drop> = {
  kind: 'drop',
  usual: { bounces: 2 },
  stored: { bounces: z.number().min(1) },
  put: (between, { bounces }, progress) => {
    between.from.put()
    for (const next of nextItems(between)) between.place.stack.put({ ...next, opacity: progress ** (1 / bounces) })
  },
}
`,
  'core/transitions/index.ts': both(
    changed('grow, pictureWipe, glide }', 'grow, pictureWipe, glide, drop }'),
    afterLine("import { dissolve } from './dissolve.ts'\n", "import { drop } from './drop.ts'\n"),
  ),
}

/** Everything that can be done needs an entry and its words. */
const applause: Change = {
  'app/commands/list.ts': afterLine(
    'export const commandList = {\n',
    "  applause: { group: 'air', icon: Play, keys: ['KeyA'], whyNot: ({ air }) => [!air.isFeedOn && 'noFeed'], run: ({ air }) => air.toggleCard() },\n",
  ),
  'app/locales/en/commands.ts': afterLine('    does: {\n', "      applause: 'Play applause',\n"),
  'app/locales/de/commands.ts': afterLine('    does: {\n', "      applause: 'Applaus abspielen',\n"),
}

/** A way out of half the size at half the rate, without graphics, that starts and stops with a button. */
const preview: Change = {
  'app/outputs/preview.ts': `
import type { StudioEngine } from '../../engine/client/studio-engine.ts'
import type { OutputOrder } from '../../engine/output-order.ts'
import type { EngineStats } from '../../engine/protocol.ts'

const PREVIEW: OutputOrder = { id: 'preview', routing: { graphics: false }, scale: 0.5, everyTicks: 2 }

export const startPreview = (engine: StudioEngine): MediaStreamTrack => engine.outputs.open(PREVIEW)
export const stopPreview = (engine: StudioEngine): void => engine.outputs.close(PREVIEW.id)
export const lostByPreview = ({ outputs }: EngineStats): number => outputs[PREVIEW.id]?.lost ?? 0
`,
}

vi.setConfig({ testTimeout: 300_000 })

const compiled = new Compiled([
  'core/compose/index.ts',
  'core/layers/index.ts',
  'core/inputs/index.ts',
  'core/show/schema.ts',
  'app/kinds/layers/index.ts',
  'app/kinds/inputs/index.ts',
  'app/locales/en/build.ts',
  'core/steps/index.ts',
  'core/steps/schema.ts',
  'core/transitions/index.ts',
  'core/programme/programme.ts',
  'app/bench/step-groups.ts',
  'app/locales/en/steps.ts',
  'app/locales/en/commands.ts',
  'app/commands/list.ts',
  'engine/client/studio-engine.ts',
])

/** A text is in one file of each language: every language after the first adds a file to what has words. */
const isWords = (file: string) => file.startsWith('app/locales/')
const moreLanguages = (change: Change) => (Object.keys(change).some(isWords) ? Object.keys(languages).length - 1 : 0)

describe.each([
  ['kind of layer', gauge, 8],
  ['kind of input', map, 8],
  ['step', negative, 4],
  ['transition', drop, 2],
  ['command', applause, 2],
  ['output', preview, 4],
] as const)('a new %s', (_what, change: Change, mostFiles) => {
  it('compiles, with few files touched', () => {
    expect(compiled.errors({})).toEqual([])
    expect(compiled.errors(change)).toEqual([])
    expect(Object.keys(change).length).toBeLessThanOrEqual(mostFiles + moreLanguages(change))
  })

  it.each(Object.keys(change))('does not compile without %s', (left) => {
    // What is one file by itself has nothing that could be left out; a transition that is in no list is found by core/transitions/transitions.test.ts.
    if (Object.keys(change).length === 1 || left === 'core/transitions/index.ts') return expect(change[left]).toBeDefined()
    const rest = Object.fromEntries(Object.entries(change).filter(([file]) => file !== left))
    expect(compiled.firstError(rest)).not.toBeNull()
  })

  it.each([
    ['role', 'core/layers/gauge.ts'],
    ['coverage', 'core/layers/gauge.ts'],
    ['placeholder', 'core/inputs/map.ts'],
    ['schema', 'core/inputs/map.ts'],
  ])('does not compile when it leaves "%s" unanswered in %s', (question, file) => {
    const definition = change[file]
    if (definition === undefined) return expect(Object.keys(change)).not.toContain(file)
    const without = (definition as string).split('\n').filter((line) => !line.startsWith(`  ${question}:`))
    expect(compiled.firstError({ ...change, [file]: without.join('\n') })).not.toBeNull()
  })
})
