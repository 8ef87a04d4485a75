import { describe, expect, it } from 'vitest'
import { compose } from '../../core/blend/compose.ts'
import { blendModes, type BlendName } from '../../core/blend/index.ts'
import { followedBy, mapPoint, rotation, scaling, translation, type Affine } from '../../core/composite/affine.ts'
import { shapeCoverage } from '../../core/composite/shape.ts'
import { sourceOver } from '../../core/composite/source-over.ts'
import { sampleBilinear } from '../../core/picture/bilinear-sample.ts'
import { safeArea } from '../../core/layout/safe-area.ts'
import { contrastRatio } from '../support/contrast.ts'
import { casesOf, sourceOf } from './cases.ts'

/** Scale, then turn about an anchor that stays in place. */
function scaleTurnAbout(anchorX: number, anchorY: number, scaleX: number, scaleY: number, angleDeg: number): Affine {
  const toOrigin = translation(-anchorX, -anchorY)
  return followedBy(followedBy(followedBy(toOrigin, scaling(scaleX, scaleY)), rotation(angleDeg)), translation(anchorX, anchorY))
}

/** Premultiplied doubles of straight 8-bit codes, and back. */
const premultiplied = ([red, green, blue, alpha]: readonly number[]) =>
  Float64Array.of((red! * alpha!) / 65025, (green! * alpha!) / 65025, (blue! * alpha!) / 65025, alpha! / 255)
const straightCodes = ([red, green, blue, alpha]: Float64Array) => [red!, green!, blue!].map((value) => (alpha === 0 ? 0 : (value / alpha!) * 255)).concat(alpha! * 255)

describe(`source-over — ${sourceOf('composite.w3c')}`, () => {
  const cases = casesOf('composite.w3c').filter(({ params }) => params.mode === 'source-over' && params.operator === undefined)
  it.each(cases.map((each) => [JSON.stringify(each.input), each] as const))('%s', (_title, { input, expected }) => {
    const backdrop = premultiplied(input.backdrop)
    sourceOver(backdrop, 0, premultiplied(input.source), 0, 1)
    const alpha = backdrop[3]!
    const straight = [0, 1, 2].map((channel) => (alpha === 0 ? 0 : (backdrop[channel]! / alpha) * 255))
    expected.rgba8.slice(0, 3).forEach((value: number, channel: number) => expect(Math.abs(straight[channel]! - value)).toBeLessThanOrEqual(0.51))
    expect(Math.abs(alpha * 255 - expected.rgba8[3])).toBeLessThanOrEqual(0.51)
  })
  it('has cases', () => expect(cases.length).toBeGreaterThanOrEqual(5))
})

describe(`blend modes — ${sourceOf('composite.w3c')}`, () => {
  const names = new Map<string, BlendName>([['lighter', 'plus-lighter'], ...blendModes.map(({ name }) => [name, name] as const)])
  const cases = casesOf('composite.w3c').filter(({ params }) => names.has(params.mode) && params.mode !== 'source-over')
  it.each(cases.map((each) => [`${each.params.mode} ${JSON.stringify(each.input)}`, each] as const))('%s', (_title, { input, params, expected }) => {
    const backdrop = premultiplied(input.backdrop)
    compose(names.get(params.mode)!, backdrop, 0, premultiplied(input.source), 0, 1)
    straightCodes(backdrop).forEach((code, i) => expect(Math.abs(code - expected.rgba_float[i])).toBeLessThanOrEqual(0.01))
  })
  it('has cases of every mode', () => {
    const seen = new Set(cases.map(({ params }) => names.get(params.mode)))
    expect(blendModes.map(({ name }) => name).filter((name) => name !== 'normal' && !seen.has(name))).toEqual([])
  })
})

describe(`affine maps — ${sourceOf('transform.affine')}`, () => {
  it.each(casesOf('transform.affine').map((each) => [JSON.stringify(each.params), each] as const))('%s', (_title, { input, params, expected }) => {
    const [x, y, width, height] = input.rect
    const map = scaleTurnAbout(params.anchor[0], params.anchor[1], params.scale[0], params.scale[1], params.rotate_deg)
    const corners = [
      [x, y],
      [x + width, y],
      [x + width, y + height],
      [x, y + height],
    ]
    corners.forEach(([cornerX, cornerY], index) => {
      const [mappedX, mappedY] = mapPoint(map, cornerX, cornerY)
      expect(mappedX).toBeCloseTo(expected.corners[index][0], 3)
      expect(mappedY).toBeCloseTo(expected.corners[index][1], 3)
    })
  })
})

describe(`bilinear sampling — ${sourceOf('transform.bilinear')}`, () => {
  it('gives the half-pixel-centre values', () => {
    const [{ input, params, expected }] = casesOf('transform.bilinear') as [ReturnType<typeof casesOf>[number]]
    const data = new Float64Array(input.row.length * 4)
    input.row.forEach((value: number, i: number) => data.fill(value, i * 4, i * 4 + 4))
    const out = new Float64Array(4)
    const row = Array.from({ length: params.to }, (_, i) => {
      sampleBilinear({ widthPx: input.row.length, heightPx: 1, data }, ((i + 0.5) * input.row.length) / params.to, 0.5, out)
      return out[0]!
    })
    expect(row).toEqual(expected.row)
  })
})

describe(`area of a round frame — ${sourceOf('mask.shape_area')}`, () => {
  it('is within 0.3 % of the circle', () => {
    const circle = casesOf('mask.shape_area').find(({ input }) => input.shape === 'circle c=(32,32) r=20')!
    let area = 0
    for (let y = 0; y < 64; y += 1) for (let x = 0; x < 64; x += 1) area += shapeCoverage({ kind: 'roundedRect', width: 40, height: 40, cornerRadius: 20 }, x + 0.5 - 12, y + 0.5 - 12)
    expect(Math.abs(area / circle.expected.area - 1)).toBeLessThan(0.003)
  })
})

describe(`safe areas — ${sourceOf('layout.safe_areas')}`, () => {
  it.each(casesOf('layout.safe_areas').map((each) => [`${each.input.w}×${each.input.h}`, each] as const))('%s', (_title, { input, expected }) => {
    for (const kind of ['action', 'title'] as const) {
      const { x, y, width, height } = safeArea(kind, input.w, input.h)
      ;[x, y, width, height].forEach((value, i) => expect(value).toBeCloseTo(expected[kind][i], 6))
    }
  })
})

describe(`contrast ratio — ${sourceOf('text.wcag_contrast')}`, () => {
  it.each(casesOf('text.wcag_contrast').map((each) => [`${each.input.fg} on ${each.input.bg}`, each] as const))('%s', (_title, { input, expected }) => {
    expect(contrastRatio(input.fg, input.bg)).toBeCloseTo(expected.ratio, 3)
  })
})
