// Backgrounds: each covers every canvas in the show's colours, is swapped without touching anything else, and loops without a jump.
import { describe, expect, it } from 'vitest'
import { picturesFor } from '../../tests/support/random-shows.ts'
import { sceneNamed, testShow } from '../../tests/support/shows.ts'
import { layersOf } from '../layers/tree.ts'
import { renderReference } from '../render/render-reference.ts'
import { newScene } from '../show/create.ts'
import { addContents } from '../show/contents.ts'
import { addScene } from '../show/edits.ts'
import { readShow } from '../show/migrate.ts'
import { setStyle } from '../show/style.ts'
import type { Show } from '../show/show.ts'
import { planFrame } from '../stage/plan-frame.ts'
import { drawBackground, drawnBackgrounds, isDrawnBackground } from './drawn.ts'
import { drawMoving, MOVING_PICTURES, MOVING_SIZE } from './moving.ts'
import { movingBackgrounds } from '../inputs/clip.ts'
import { backgroundOf, favouriteBackground, inputBackground, setBackground } from './set-background.ts'

let count = 0
const makeId = () => `b${(count += 1)}`
const base = testShow()
const CANVASES = [
  [160, 90],
  [90, 160],
  [120, 120],
  [160, 120],
] as const

/** The show on a small canvas, with a scene that is a background and nothing else. */
function alone(show: Show, name: (typeof drawnBackgrounds)[number], [widthPx, heightPx]: readonly [number, number]) {
  const small = { ...show, canvas: { ...show.canvas, widthPx: Math.max(160, widthPx), heightPx: Math.max(120, heightPx) } }
  const { layer, contents } = drawBackground(name, name, small.canvas, makeId)
  const scene = { ...newScene(name, makeId), layers: [layer] }
  return { show: addScene(addContents(small, contents), scene), scene }
}

function pixelsOf(show: Show, scene: Show['scenes'][number], ground: 'black' | 'clear' = 'clear'): Float64Array {
  const plan = planFrame(show, { scene, ground }, 0, new Map())
  return renderReference(plan, picturesFor({ inputs: new Map() }, plan)).data
}

describe('drawn backgrounds', () => {
  it('are at least twelve', () => expect(drawnBackgrounds.length).toBeGreaterThanOrEqual(12))

  it.each(drawnBackgrounds.flatMap((name) => CANVASES.map((canvas) => [name, canvas] as const)))(
    '%s covers a canvas of %s, and can be stored',
    (name, canvas) => {
      const { show, scene } = alone(base, name, canvas)
      expect(readShow(structuredClone(show))).toEqual(show)
      const data = pixelsOf(show, scene)
      let least = 1
      for (let at = 3; at < data.length; at += 4) least = Math.min(least, data[at]!)
      expect(least, 'nothing shines through').toBeGreaterThan(0.999)
    },
  )

  it.each(drawnBackgrounds)('%s has no colour but the show’s, and follows them', (name) => {
    const { show, scene } = alone(base, name, CANVASES[0])
    for (const { contentId } of layersOf(scene).filter((layer) => 'contentId' in layer) as { contentId: string }[]) {
      const content = show.contents.find(({ id }) => id === contentId)!
      for (const [colour] of JSON.stringify(content).matchAll(/"colour":"[^"]*"/g)) expect(colour).toContain('show:')
    }
    // With one colour for everything nothing else can be seen (sRGB code 0x40 of 0xff).
    const grey = setStyle(show, { colours: { ground: '#404040', panel: '#404040', accent: '#404040', ink: '#404040', onAccent: '#404040' } })
    const data = pixelsOf(grey, scene)
    for (let at = 0; at < data.length; at += 1) if (at % 4 < 3) expect(Math.abs(data[at]! - 0x40 / 0xff)).toBeLessThan(0.003)
  })
})

describe('setBackground', () => {
  const welcome = sceneNamed(base, 'Welcome')
  const [wall, ...others] = welcome.layers

  it('takes the place of what fills the canvas at the back, then of the background before; all else stays', () => {
    expect(backgroundOf(base, welcome)).toBe(wall)
    const first = drawBackground('hills', 'Hills', base.canvas, makeId)
    const once = setBackground(base, welcome.id, first)
    expect(sceneNamed(once, 'Welcome').layers).toEqual([first.layer, ...others])
    const second = drawBackground('dunes', 'Dunes', base.canvas, makeId)
    const twice = setBackground(once, welcome.id, second)
    expect(sceneNamed(twice, 'Welcome').layers).toEqual([second.layer, ...others])
    // What the first was filled with is not left behind.
    expect(twice.contents.some(({ id }) => first.contents.some((content) => content.id === id))).toBe(false)
    expect(twice.scenes.filter(({ id }) => id !== welcome.id)).toEqual(base.scenes.filter(({ id }) => id !== welcome.id))
    expect(setBackground(base, 'gone', first)).toBe(base)
  })

  it('comes behind everything where nothing covers the canvas', () => {
    const small = {
      ...base,
      scenes: base.scenes.map((scene) => ({ ...scene, layers: scene.layers.map((layer) => ({ ...layer, placement: { ...layer.placement, width: 100 } })) })),
    }
    const made = drawBackground('glow', 'Glow', base.canvas, makeId)
    expect(sceneNamed(setBackground(small, welcome.id, made), 'Welcome').layers).toEqual([made.layer, ...sceneNamed(small, 'Welcome').layers])
    expect(backgroundOf(small, sceneNamed(small, 'Welcome'))).toBeNull()
  })

  it('an input fills the canvas; a favourite that has gone is none', () => {
    const input = base.inputs.find(({ kind }) => kind === 'picture')!
    const { layer } = inputBackground(input, base, makeId)
    expect(layer.placement).toMatchObject({ x: 0, y: 0, width: base.canvas.widthPx, height: base.canvas.heightPx, fit: 'fill' })
    expect(favouriteBackground(base, { type: 'input', inputId: input.id }, (name) => name, makeId)).not.toBeNull()
    expect(favouriteBackground(base, { type: 'input', inputId: 'gone' }, (name) => name, makeId)).toBeNull()
    expect(favouriteBackground(base, { type: 'drawn', name: 'of tomorrow' }, (name) => name, makeId)).toBeNull()
    expect(isDrawnBackground('hills')).toBe(true)
  })
})

describe('moving backgrounds', () => {
  const colours = { ground: '#101820', panel: '#f2e8d8', accent: '#c0392b' }
  const difference = (one: Uint8Array, other: Uint8Array) => one.reduce((most, value, at) => Math.max(most, Math.abs(value - other[at]!)), 0)

  it.each(movingBackgrounds)('%s moves, and its end meets its beginning: the step there is like any other', (name) => {
    const at = (index: number) => drawMoving(name, colours, index / MOVING_PICTURES)
    expect(at(0)).toHaveLength(MOVING_SIZE.widthPx * MOVING_SIZE.heightPx * 3)
    expect(difference(at(0), at(MOVING_PICTURES)), 'the loop is closed').toBeLessThanOrEqual(1)
    const seam = meanStepOf(at(MOVING_PICTURES - 1), at(0))
    expect(seam).toBeGreaterThan(0)
    expect(seam).toBeLessThan(2 * Math.max(meanStepOf(at(0), at(1)), meanStepOf(at(30), at(31))))
  })

  it.each(movingBackgrounds)('%s stays between the colours of the show', (name) => {
    const data = drawMoving(name, colours, 0.4)
    for (let channel = 0; channel < 3; channel += 1) {
      const codes = Object.values(colours).map((hex) => parseInt(hex.slice(1 + 2 * channel, 3 + 2 * channel), 16))
      let [least, most] = [255, 0]
      for (let at = channel; at < data.length; at += 3) {
        least = Math.min(least, data[at]!)
        most = Math.max(most, data[at]!)
      }
      expect(least).toBeGreaterThanOrEqual(Math.min(...codes))
      expect(most).toBeLessThanOrEqual(Math.max(...codes))
    }
  })
})

function meanStepOf(one: Uint8Array, other: Uint8Array): number {
  let sum = 0
  for (let at = 0; at < one.length; at += 1) sum += Math.abs(one[at]! - other[at]!)
  return sum / one.length
}
