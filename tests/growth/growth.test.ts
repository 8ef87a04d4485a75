// A pretend kind of layer and one of input, added to the program as it is: few files change, and none of them can be left out.
import { describe, expect, it, vi } from 'vitest'
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
    '  scene: { section: null, holds: () => null, opens: null },\n',
    '  gauge: { section: null, holds: () => null, opens: null },\n',
  ),
  'app/locales/build-en.ts': afterLine("      scene: 'Scene',\n", "      gauge: 'Gauge',\n"),
}

/** An input whose pictures are pages of a document. */
const deck: Change = {
  'core/inputs/deck.ts': `
import { z } from 'zod'
import type { InputBase, InputDefinition } from './input.ts'
import { assetSchema, inputBase } from './schema.ts'
import { inputSourceId } from './source-ids.ts'

export interface DeckInput extends InputBase {
  readonly kind: 'deck'
  readonly pages: readonly string[]
}

export const deck: InputDefinition<'deck'> = {
  kind: 'deck',
  schema: z.strictObject({ ...inputBase, kind: z.literal('deck'), pages: z.array(assetSchema) }),
  subject: 'page',
  pageRank: 0,
  isPageWhenWhole: true,
  canBeMark: false,
  fit: 'fit',
  hasPicture: true,
  sourceId: ({ id }) => inputSourceId(id),
  still: ({ pages }) => ({ type: 'asset', asset: pages[0]! }),
  inCover: (input) => input,
  placeholder: 'window',
}
`,
  'core/inputs/input.ts': both(
    afterLine('  readonly colour: ColourInput\n', '  readonly deck: DeckInput\n'),
    afterLine("import type { ColourInput } from './colour.ts'\n", "import type { DeckInput } from './deck.ts'\n"),
  ),
  'core/inputs/index.ts': both(
    changed('= { camera, screen, picture, clip, colour }', '= { camera, screen, picture, clip, colour, deck }'),
    afterLine("import { colour } from './colour.ts'\n", "import { deck } from './deck.ts'\n"),
  ),
  'app/kinds/inputs/index.ts': changed(
    '  picture: { icon: Image, section: null, state: still },\n',
    '  picture: { icon: Image, section: null, state: still },\n  deck: { icon: Image, section: null, state: still },\n',
  ),
  'app/locales/build-en.ts': afterLine("      scene: 'Scene',\n", "      deck: 'Slides',\n"),
}

// The first compilation reads the types of every library.
vi.setConfig({ testTimeout: 300_000 })

const compiled = new Compiled([
  'core/compose/index.ts',
  'core/layers/index.ts',
  'core/inputs/index.ts',
  'core/show/schema.ts',
  'app/kinds/layers/index.ts',
  'app/kinds/inputs/index.ts',
  'app/locales/build-en.ts',
])

describe.each([
  ['kind of layer', gauge, 8],
  ['kind of input', deck, 8],
] as const)('a new %s', (_what, change: Change, mostFiles) => {
  it('compiles, with few files touched', () => {
    expect(compiled.errors({})).toEqual([])
    expect(compiled.errors(change)).toEqual([])
    expect(Object.keys(change).length).toBeLessThanOrEqual(mostFiles)
  })

  it.each(Object.keys(change))('does not compile without %s', (left) => {
    const rest = Object.fromEntries(Object.entries(change).filter(([file]) => file !== left))
    expect(compiled.firstError(rest)).not.toBeNull()
  })

  it.each([
    ['role', 'core/layers/gauge.ts'],
    ['coverage', 'core/layers/gauge.ts'],
    ['placeholder', 'core/inputs/deck.ts'],
    ['schema', 'core/inputs/deck.ts'],
  ])('does not compile when it leaves "%s" unanswered in %s', (question, file) => {
    const definition = change[file]
    if (definition === undefined) return expect(Object.keys(change)).not.toContain(file)
    const without = (definition as string).split('\n').filter((line) => !line.startsWith(`  ${question}:`))
    expect(compiled.firstError({ ...change, [file]: without.join('\n') })).not.toBeNull()
  })
})
