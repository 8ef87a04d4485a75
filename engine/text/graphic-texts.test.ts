// The words of every preset, drawn: short, long, on two lines and from right to left, on four shapes of canvas. Nothing is cut, everything stays
// where every screen shows it, and it stands out from what is behind it.
import { createCanvas } from '@napi-rs/canvas'
import { beforeAll, describe, expect, it } from 'vitest'
import { graphicWordsForTests } from '../../tests/support/graphic-words.ts'
import { testShow } from '../../tests/support/shows.ts'
import { contrastOf } from '../../core/colour/contrast.ts'
import { graphicFamilies } from '../../core/graphics/families.ts'
import { graphicKinds, makeGraphic, type GraphicPreset } from '../../core/graphics/make-graphic.ts'
import { isText, isTextItem } from '../../core/layers/text.ts'
import { safeArea } from '../../core/layout/safe-area.ts'
import type { Picture } from '../../core/picture/picture.ts'
import type { FramePlan, TextJob } from '../../core/plan/frame-plan.ts'
import { renderReference } from '../../core/render/render-reference.ts'
import { addContents } from '../../core/show/contents.ts'
import { newScene } from '../../core/show/create.ts'
import { addScene } from '../../core/show/edits.ts'
import type { Layer, Scene, Show } from '../../core/show/show.ts'
import { planFrame } from '../../core/stage/plan-frame.ts'
import { loadFonts, nodeTextPicture, stackOf } from '../../server/cli/node-engine.ts'
import type { TextPen } from './draw-text.ts'
import { textPicture } from './text-picture.ts'

beforeAll(loadFonts)

/** Wide, upright, square, and as old screens are; three eighths of 720 lines. */
const canvases = [
  { widthPx: 480, heightPx: 270, frameRate: 30 },
  { widthPx: 270, heightPx: 480, frameRate: 30 },
  { widthPx: 270, heightPx: 270, frameRate: 30 },
  { widthPx: 360, heightPx: 270, frameRate: 30 },
] as const

const texts = {
  short: 'Iva',
  long: 'Dr. Aleksandra Wiśniewska-Hohenzollern, chair of the beekeepers’ society of the upper valley',
  'two lines': 'Reading a brood frame\nand what it tells you',
  'right to left': 'قراءة إطار الحضنة في المساء',
}

const FIELDS = /\{(time|countdown)\}/

function withWords({ kind, family }: GraphicPreset, canvas: Show['canvas'], words: string): { readonly show: Show; readonly graphic: Scene } {
  let count = 0
  const makeId = () => `g${(count += 1)}`
  const { graphic, contents } = makeGraphic({ kind, family }, graphicWordsForTests, canvas, makeId)
  const said = contents.map((content) =>
    isTextItem(content)
      ? {
          ...content,
          text: { ...content.text, blocks: content.text.blocks.map((block) => ({ ...block, text: FIELDS.test(block.text) ? block.text : words })) },
        }
      : content,
  )
  const still = { ...graphic, layers: graphic.layers.map((layer): Layer => ({ ...layer, entrance: null, exit: null })) }
  const presenter = { name: words, title: words, countdownTo: '23:59' }
  const show = addContents(addScene({ ...testShow(), canvas, inputs: [], contents: [], presenter, scenes: [newScene('Empty', makeId)] }, still), said)
  return { show, graphic: still }
}

function picturesOf(plan: FramePlan, hasWords: boolean): Map<string, Picture> {
  return new Map(
    plan.texts.map((job): [string, Picture] => [
      job.sourceId,
      hasWords
        ? nodeTextPicture(job)
        : { format: 'rgba', widthPx: job.widthPx, heightPx: job.heightPx, data: new Uint8ClampedArray(job.widthPx * job.heightPx * 4) },
    ]),
  )
}

/** Pixels of ink that fall outside the box of a text: drawn on a sheet with a margin, on which nothing is cut. */
function inkOutside(job: TextJob): number {
  const margin = 30
  let outside = 0
  textPicture(
    job,
    (widthPx, heightPx) => {
      const sheet = createCanvas(widthPx + 2 * margin, heightPx + 2 * margin)
      const pen = sheet.getContext('2d')
      pen.translate(margin, margin)
      const read = () => {
        const { data } = pen.getImageData(0, 0, sheet.width, sheet.height)
        for (let y = 0; y < sheet.height; y += 1) {
          for (let x = 0; x < sheet.width; x += 1) {
            const isInside = x >= margin && y >= margin && x < margin + widthPx && y < margin + heightPx
            if (!isInside && data[(y * sheet.width + x) * 4 + 3]! > 100) outside += 1
          }
        }
        return pen.getImageData(margin, margin, widthPx, heightPx).data
      }
      return { pen: pen as unknown as TextPen, read }
    },
    stackOf,
  )
  return outside
}

describe.each(graphicKinds.filter((kind) => kind !== 'border').flatMap((kind) => graphicFamilies.map((family) => ({ kind, family }))))(
  '$kind, $family',
  (preset) => {
    it.each(Object.entries(texts).flatMap(([name, words]) => canvases.map((canvas) => [name, canvas, words] as const)))('%s on %o', (name, canvas, words) => {
      const { show, graphic } = withWords(preset, canvas, words)
      const plan = planFrame(show, { scene: graphic, ground: 'black' }, 0, new Map())
      const pictures = picturesOf(plan, true)
      for (const job of plan.texts) expect(inkOutside(job), 'letters that are cut at the edge of their box').toBe(0)
      const drawn = renderReference(plan, pictures).data
      const bare = renderReference(plan, picturesOf(plan, false)).data
      // SMPTE ST 2046-1:2009 and EBU R 95: 5 % from every edge; a pixel is rounding.
      const safe = safeArea('title', canvas.widthPx, canvas.heightPx)
      let [ink, outside] = [0, 0]
      /** Contrasts of the ink of each text. */
      const contrasts = graphic.layers.filter(isText).map(({ placement }) => ({ placement, ratios: [] as number[] }))
      for (let y = 0; y < canvas.heightPx; y += 1) {
        for (let x = 0; x < canvas.widthPx; x += 1) {
          const at = (y * canvas.widthPx + x) * 4
          const pixel = (data: Float64Array) => [data[at]!, data[at + 1]!, data[at + 2]!] as const
          const [words_, ground] = [pixel(drawn), pixel(bare)]
          const change = Math.max(...words_.map((value, channel) => Math.abs(value - ground[channel]!)))
          if (change < 0.05) continue
          ink += 1
          if (x < safe.x - 1 || y < safe.y - 1 || x > safe.x + safe.width + 1 || y > safe.y + safe.height + 1) outside += 1
          const text = contrasts.find(({ placement: box }) => x >= box.x && y >= box.y && x < box.x + box.width && y < box.y + box.height)
          text?.ratios.push(contrastOf(words_, ground))
        }
      }
      expect(ink, 'there are words').toBeGreaterThan(15)
      expect(outside, 'pixels outside the title-safe area').toBe(0)
      // WCAG 2.2, 1.4.3, at the middle of strokes, the tenth that stands out most: where edges are smoothed, ink is thinner by design. Words that are
      // too many are set so small here that no stroke is a pixel wide; at 720 lines they are not.
      for (const { ratios } of contrasts) {
        const middle = ratios.sort((one, other) => other - one)[Math.floor(ratios.length / 10)]
        if (middle !== undefined) expect(middle, 'contrast').toBeGreaterThanOrEqual(name === 'short' ? 4.5 : 2.5)
      }
    })
  },
)
