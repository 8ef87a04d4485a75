import { describe, expect, it } from 'vitest'
import { contrastRatio } from '../../tests/support/contrast.ts'
import { testShow } from '../../tests/support/shows.ts'
import { formatHex } from '../colour/hex.ts'
import { newInputLayer } from '../layers/input.ts'
import { isText, textOf } from '../layers/text.ts'
import { SAFE_INSET } from '../layout/safe-area.ts'
import { renderReference } from '../render/render-reference.ts'
import { addContents } from '../show/contents.ts'
import { newScene } from '../show/create.ts'
import { addScene } from '../show/edits.ts'
import { showSchema } from '../show/schema.ts'
import type { Layer, Show } from '../show/show.ts'
import { colourIn } from '../show/style.ts'
import { planFrame } from '../stage/plan-frame.ts'
import { graphicFamilies } from './families.ts'
import { graphicKinds, makeGraphic, type GraphicWords } from './make-graphic.ts'

const words: GraphicWords = {
  names: Object.fromEntries(graphicKinds.map((kind) => [kind, kind])) as GraphicWords['names'],
  parts: { plate: 'Plate', photo: 'Photo', name: 'Name', heading: 'Heading', text: 'Text', point: 'Point', source: 'Source' },
  says: {
    title: 'Title',
    subtitle: 'Subtitle',
    bannerHeading: 'Heading',
    bannerText: 'Text',
    agenda: 'Agenda',
    points: ['One', 'Two', 'Three', 'Four'],
    caption: 'Caption',
    quote: 'Quote',
    source: 'Source',
    countdown: 'We begin in',
  },
}

/** Wide, upright, square, and as old screens are. */
const canvases = [
  { widthPx: 480, heightPx: 270, frameRate: 30 },
  { widthPx: 270, heightPx: 480, frameRate: 30 },
  { widthPx: 320, heightPx: 320, frameRate: 30 },
  { widthPx: 400, heightPx: 300, frameRate: 30 },
]

function withGraphic(kind: (typeof graphicKinds)[number], family: (typeof graphicFamilies)[number], canvas: Show['canvas']): Show {
  let count = 0
  const makeId = () => `g${(count += 1)}`
  const { graphic, contents } = makeGraphic({ kind, family }, words, canvas, makeId)
  return addContents(addScene({ ...testShow(), canvas, inputs: [], contents: [], scenes: [newScene('Empty', makeId)] }, graphic), contents)
}

const presets = graphicKinds.flatMap((kind) => graphicFamilies.map((family) => [kind, family] as const))

describe.each(presets)('%s, %s', (kind, family) => {
  it.each(canvases)('is a graphic that a show can hold, its words where every screen shows them: $widthPx × $heightPx', (canvas) => {
    const show = withGraphic(kind, family, canvas)
    expect(showSchema.safeParse(show).error?.issues).toBeUndefined()
    const graphic = show.scenes[1]!
    expect(graphic.graphic).not.toBeNull()
    expect(graphic.layers.length).toBeGreaterThan(0)
    // SMPTE ST 2046-1:2009 and EBU R 95: titles keep 5 % from every edge. Half a pixel is rounding.
    for (const { placement } of graphic.layers.filter(isText)) {
      expect(placement.x).toBeGreaterThanOrEqual(canvas.widthPx * SAFE_INSET.title - 0.5)
      expect(placement.y).toBeGreaterThanOrEqual(canvas.heightPx * SAFE_INSET.title - 0.5)
      expect(placement.x + placement.width).toBeLessThanOrEqual(canvas.widthPx * (1 - SAFE_INSET.title) + 1)
      expect(placement.y + placement.height).toBeLessThanOrEqual(canvas.heightPx * (1 - SAFE_INSET.title) + 1)
    }
  })

  // WCAG 2.2, 1.4.3: 4.5 to 1, measured on the drawn picture, over black and over white, at the worst pixel under the words.
  it.each(canvases)('has words that stand out from what is behind them, whatever that is: $widthPx × $heightPx', (canvas) => {
    const show = withGraphic(kind, family, canvas)
    const layers = show.scenes[1]!.layers.map((layer): Layer => ({ ...layer, entrance: null, exit: null }))
    const measured = ['#000000', '#ffffff'].flatMap((colour) => {
      const wall = { id: 'wall', kind: 'colour' as const, name: 'Wall', colour, treatment: [] }
      const behind = newInputLayer(wall, canvas, () => 'wall-layer')
      const scene = { ...show.scenes[1]!, layers: [behind, ...layers.filter((layer) => !isText(layer))] }
      const { data, widthPx } = renderReference(planFrame({ ...show, inputs: [wall] }, { scene }, 0, new Map()), new Map())
      return layers.filter(isText).flatMap((layer) => {
        const { x, y, width, height } = layer.placement
        const grounds = new Set<string>()
        for (let row = y; row < y + height; row += 1) {
          for (let column = x; column < x + width; column += 1) {
            const at = (row * widthPx + column) * 4
            grounds.add(formatHex([data[at]!, data[at + 1]!, data[at + 2]!]))
          }
        }
        const letters = new Set(textOf(show, layer).blocks.map((block) => colourIn(show.style, block.colour)))
        return [...letters].flatMap((letter) => [...grounds].map((ground) => ({ ratio: contrastRatio(letter, ground), letter, ground, name: layer.name })))
      })
    })
    expect(measured.filter(({ ratio }) => ratio < 4.5)).toEqual([])
    expect(measured.length > 0).toBe(kind !== 'border')
  })
})
