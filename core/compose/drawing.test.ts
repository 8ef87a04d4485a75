// Drawings in plans: where a page has them, cropped and turned as it is, and as faint as the time says.
import { describe, expect, it } from 'vitest'
import { seededRandom } from '../random/seeded.ts'
import { strokePicture } from '../drawing/strokes-canvas.ts'
import { FADE_MS, pageSurface, sceneSurface, type DrawnPart, type Drawings, type SurfaceId } from '../drawing/surface.ts'
import { newDeck } from '../inputs/deck.ts'
import { newInputLayer } from '../layers/input.ts'
import type { Layer } from '../layers/layer.ts'
import type { Picture } from '../picture/picture.ts'
import type { SourceId } from '../picture/source.ts'
import { renderReference } from '../render/render-reference.ts'
import { testShow } from '../../tests/support/shows.ts'
import { goTo } from '../stage/stage.ts'
import { planFrame } from '../stage/plan-frame.ts'
import { usualTransitions } from '../transitions/index.ts'

const CANVAS = { widthPx: 160, heightPx: 90, frameRate: 30 }
const PAGE = { widthPx: 80, heightPx: 60 }
let count = 0
const makeId = () => `i${(count += 1)}`
const page = (id: string) => ({ id, asset: 'a'.repeat(64), ...PAGE, number: 1, title: '', notes: '', skipped: false, strokes: [] })
const deck = newDeck('Slides', 's.pdf', [page('p1'), page('p2')], makeId)
const base = testShow()
const show = { ...base, canvas: CANVAS, inputs: [deck] }
const paper: Picture = { format: 'rgba', ...PAGE, data: new Uint8Array(PAGE.widthPx * PAGE.heightPx * 4).fill(255) }
const layer = (part: Partial<Layer>): Layer => ({ ...newInputLayer(deck, CANVAS, makeId), ...part }) as Layer
const sceneOf = (layers: readonly Layer[], id = 'one') => ({ ...base.scenes[0]!, id, layers })

/** A bar in the middle third of a surface, from top to bottom. */
function bar(surface: SurfaceId, size: { widthPx: number; heightPx: number }, fadesFromMs: number | null = null) {
  const share = size.widthPx / size.heightPx / 3
  const points = [0.5, -0.5, 0.5, 0.5, 1.5, 0.5]
  const width = Math.min(0.2, share)
  const { x, y, picture } = strokePicture({ id: 's', tool: 'line', colour: '#ff0000', width, points }, size.widthPx, size.heightPx)!
  const sourceId = `strokes:${surface}`
  const part: DrawnPart = {
    ...{ sourceId, x, y, widthPx: picture.widthPx, heightPx: picture.heightPx },
    ...{ surfaceWidthPx: size.widthPx, surfaceHeightPx: size.heightPx, fadesFromMs },
  }
  return { drawings: new Map([[surface, [part]]]) as Drawings, pictures: new Map<SourceId, Picture>([[sourceId, picture]]), half: (width * size.heightPx) / 2 }
}

function drawn(stage: Parameters<typeof planFrame>[1], pictures: ReadonlyMap<SourceId, Picture>, timeMs = 0) {
  const infos = new Map([[`input:${deck.id}`, { ...PAGE, isOpaque: true }]])
  const plan = planFrame(show, stage, timeMs, infos)
  const { data } = renderReference(plan, new Map<SourceId, Picture>([[`input:${deck.id}`, paper], ...pictures]) as never)
  const at = (x: number, y: number) => [0, 1, 2].map((channel) => 255 * Number(data[(y * CANVAS.widthPx + x) * 4 + channel]))
  return { plan, at }
}
const isRed = ([red, green]: readonly number[]) => red! > 200 && green! < 60

describe('a drawing on a page', () => {
  const { drawings, pictures, half } = bar(pageSurface(deck.id, 'p1'), PAGE)

  it('lies where the page is, as large as it is', () => {
    const scene = sceneOf([layer({ placement: { x: 40, y: 0, width: 80, height: 60, angleDeg: 0, fit: 'stretch' } })])
    const { at } = drawn({ scene, drawings }, pictures)
    expect([isRed(at(80, 30)), isRed(at(80 - half + 1, 30)), isRed(at(80 - half - 1, 30)), isRed(at(80, 59)), isRed(at(80, 61))]).toEqual([
      true,
      true,
      false,
      true,
      false,
    ])
  })

  it('turns with it: what went down goes across', () => {
    const scene = sceneOf([layer({ placement: { x: 40, y: 15, width: 80, height: 60, angleDeg: 90, fit: 'stretch' } })])
    const { at } = drawn({ scene, drawings }, pictures)
    expect([isRed(at(55, 45)), isRed(at(105, 45)), isRed(at(80, 60))]).toEqual([true, true, false])
  })

  it('is cropped with it: of the left half nothing but its edge is left', () => {
    const whole = { x: 0, y: 0, width: 160, height: 90, angleDeg: 0, fit: 'stretch' as const }
    const scene = sceneOf([layer({ placement: whole, crop: { left: 0, top: 0, right: 0.5, bottom: 0 } })])
    const { at } = drawn({ scene, drawings }, pictures)
    // Four pixels of the canvas for one of the page, across.
    expect([isRed(at(159, 45)), isRed(at(Math.round(160 - half * 4) + 3, 45)), isRed(at(Math.round(160 - half * 4) - 4, 45))]).toEqual([true, true, false])
  })

  it('is cropped from the left as well', () => {
    const whole = { x: 0, y: 0, width: 160, height: 90, angleDeg: 0, fit: 'stretch' as const }
    const scene = sceneOf([layer({ placement: whole, crop: { left: 0.5, top: 0, right: 0, bottom: 0 } })])
    const { at } = drawn({ scene, drawings }, pictures)
    expect([isRed(at(0, 45)), isRed(at(Math.round(half * 4) - 4, 45)), isRed(at(Math.round(half * 4) + 3, 45))]).toEqual([true, true, false])
  })

  it('belongs to its page: a layer at another page has none', () => {
    const scene = sceneOf([layer({ placement: { x: 0, y: 0, width: 160, height: 90, angleDeg: 0, fit: 'stretch' } })])
    const turned = { ...show, inputs: [{ ...deck, pageId: 'p2' }] }
    const plan = planFrame(turned, { scene, drawings }, 0, new Map([[`input:${deck.id}`, { ...PAGE, isOpaque: true }]]))
    expect(plan.nodes.some((node) => node.kind === 'treated' && node.sourceId.startsWith('strokes:'))).toBe(false)
  })
})

describe('a drawing over a scene', () => {
  const white = sceneOf([layer({ placement: { x: 0, y: 0, width: 160, height: 90, angleDeg: 0, fit: 'stretch' } })])

  it('fades by the clock of the plan, exactly, and the plan says until when it holds', () => {
    const { drawings, pictures } = bar(sceneSurface('one'), CANVAS, 1000)
    const greenAt = (timeMs: number) => drawn({ scene: white, drawings }, pictures, timeMs).at(80, 45)[1]
    const scale = greenAt(1000 + FADE_MS)! / 255
    const shares = [0, 1000, 1000 + FADE_MS / 4, 1000 + FADE_MS / 2, 1000 + FADE_MS].map((timeMs) => greenAt(timeMs)! / scale / 255)
    ;[0, 0, 0.25, 0.5, 1].forEach((share, index) => expect(shares[index]).toBeCloseTo(share, 2))
    const { plan } = drawn({ scene: white, drawings }, pictures, 0)
    expect(plan.validUntilMs).toBe(1000)
    expect(drawn({ scene: white, drawings }, pictures, 1200).plan.validUntilMs).toBe(1200)
  })

  it('goes with its scene in every transition, and stays in a glide to the same scene', () => {
    const { drawings, pictures } = bar(sceneSurface('one'), CANVAS)
    const random = seededRandom(3)
    for (const transition of Object.values(usualTransitions)) {
      const durationMs = 400 + Math.round(random() * 100)
      const away = goTo({ scene: white, drawings }, sceneOf(white.layers, 'two'), { ...transition, durationMs }, 0)
      const stage = { ...away, to: { ...away.to, drawings } }
      expect(isRed(drawn(stage, pictures, 0).at(80, 45)), `${transition.kind} begins`).toBe(transition.kind !== 'cut')
      expect(isRed(drawn(stage, pictures, durationMs).at(80, 45)), `${transition.kind} ends`).toBe(false)
      const here = goTo({ scene: white, drawings }, white, { ...usualTransitions.glide, durationMs }, 0)
      expect(isRed(drawn({ ...here, to: { ...here.to, drawings } }, pictures, durationMs / 2).at(80, 45))).toBe(true)
    }
  })
})
