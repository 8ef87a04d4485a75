// What culling takes away must not show.
import { inputSourceId } from '../inputs/source-ids.ts'
import type { SourceInfo } from '../picture/source.ts'
import { PLAIN_FRAME } from '../box/frame.ts'
import { describe, expect, it } from 'vitest'
import { stepWith } from '../../tests/support/steps.ts'
import type { Picture } from '../picture/picture.ts'
import { seededRandom } from '../random/seeded.ts'
import { renderReference } from '../render/render-reference.ts'
import { BARE_SCENE, newMicrophone, NOBODY } from '../show/create.ts'
import { USUAL_STYLE } from '../show/style.ts'
import { USUAL_TRANSITIONS } from '../show/show-transitions.ts'
import type { Layer, Show, Step } from '../show/show.ts'
import { planFrame } from './plan-frame.ts'
import { rootOf } from '../plan/read-plan.ts'

const WIDTH = 64
const HEIGHT = 36

function scene(inputs: readonly { readonly id: string; readonly treatment?: readonly Step[] }[], layers: readonly Partial<Layer>[]): Show {
  const whole = { x: 0, y: 0, width: WIDTH, height: HEIGHT, angleDeg: 0, fit: 'fill' as const }
  const base = {
    visible: true,
    locked: false,
    placement: whole,
    part: null,
    crop: null,
    opacity: 1,
    blend: 'normal' as const,
    frame: PLAIN_FRAME,
    entrance: null,
    exit: null,
    treatment: [],
    kind: 'input' as const,
  }
  return {
    format: 'green-room-show',
    version: 10,
    name: 'Test',
    canvas: { widthPx: WIDTH, heightPx: HEIGHT, frameRate: 30 },
    inputs: inputs.map(({ id, treatment = [] }) => ({ id, kind: 'picture', name: id, asset: 'a'.repeat(64), treatment })),
    contents: [],
    presenter: NOBODY,
    scenes: [
      { ...BARE_SCENE, id: 'scene', name: 'Scene', layers: layers.map((layer, i) => ({ ...base, id: `layer${i}`, name: `Layer ${i}`, ...layer }) as Layer) },
    ],
    style: USUAL_STYLE,
    transitions: USUAL_TRANSITIONS,
    favourites: [],
    microphone: newMicrophone({ type: 'none' }),
    holdingCard: { title: '', detail: '' },
  }
}

function plain(widthPx: number, heightPx: number, colour: readonly number[]): Picture {
  return { format: 'rgba', widthPx, heightPx, data: Uint8Array.from({ length: widthPx * heightPx * 4 }, (_, i) => (i % 4 === 3 ? 255 : colour[i % 4]!)) }
}

function both(show: Show, pictures: ReadonlyMap<string, Picture>) {
  const infos = new Map<string, SourceInfo>([...pictures].map(([id, { widthPx, heightPx }]) => [id, { widthPx, heightPx, isOpaque: true }]))
  const plans = [true, false].map((culls) => planFrame(show, { scene: show.scenes[0]! }, 0, infos, { culls }))
  const [culled, all] = plans.map((plan) => renderReference(plan, pictures).data)
  let most = 0
  culled!.forEach((value, i) => (most = Math.max(most, Math.abs(value - all![i]!))))
  return { most, drawn: rootOf(plans[0]!).items.length, missing: plans[0]!.missing }
}

describe('culling', () => {
  const pictures = new Map([
    [inputSourceId('under'), plain(WIDTH, HEIGHT, [255, 0, 0])],
    // 854 × 480 scaled: fitted, its height comes to 35.98 of 36 rows.
    [inputSourceId('over'), plain(854, 480, [0, 0, 255])],
  ])
  const layersOf = (over: Partial<Layer>): Partial<Layer>[] => [{ inputId: 'under' } as Partial<Layer>, { inputId: 'over', ...over } as Partial<Layer>]
  const inputs = (treatment: readonly Step[] = []) => [{ id: 'under' }, { id: 'over', treatment }]
  const fitted = { placement: { x: 0, y: 0, width: WIDTH, height: HEIGHT, angleDeg: 0, fit: 'fit' as const } }

  it('keeps what shows through at the edge of a layer that covers part of a pixel', () => {
    const { most, drawn } = both(scene(inputs(), layersOf(fitted)), pictures)
    expect(drawn).toBe(2)
    expect(most).toBe(0)
  })

  it.each([
    ['as it is', []],
    ['with an untouched crop', [stepWith('crop')]],
    ['with a grey key colour', [stepWith('chromaKey', { colour: '#808080' })]],
    ['with a feathered matte edge', [stepWith('matteEdge', { feather: 4, choke: -2 })]],
  ] as const)('takes away what a whole layer %s hides', (_what, treatment) => {
    const { most, drawn } = both(scene(inputs(treatment), layersOf({})), pictures)
    expect(drawn).toBe(1)
    expect(most).toBeLessThan(1e-12)
  })

  it('does not miss a picture that nobody would see', () => {
    const show = scene([{ id: 'gone' }, { id: 'over' }], [{ inputId: 'gone' } as Partial<Layer>, { inputId: 'over' } as Partial<Layer>])
    expect(both(show, pictures).missing).toEqual([])
  })

  it('makes the same picture as drawing everything, for any placement (seed 5)', () => {
    const random = seededRandom(5)
    let culled = 0
    for (let round = 0; round < 120; round += 1) {
      const layers = Array.from({ length: 3 }, (_, i): Partial<Layer> => {
        const isNearlyWhole = random() < 0.7
        const jitter = () => (isNearlyWhole ? [-1, -0.02, 0, 0, 0.02][Math.floor(random() * 5)]! : (random() - 0.3) * 30)
        const [x, y] = [jitter(), jitter()]
        return {
          inputId: `i${i}`,
          placement: {
            x,
            y,
            width: WIDTH - x + Math.abs(jitter()),
            height: HEIGHT - y + Math.abs(jitter()),
            angleDeg: random() < 0.7 ? 0 : random() * 360,
            fit: (['fit', 'fill', 'stretch'] as const)[Math.floor(random() * 3)]!,
          },
          opacity: random() < 0.8 ? 1 : random(),
          frame: { ...PLAIN_FRAME, cornerRadiusPx: random() < 0.8 ? 0 : random() * 12 },
        } as Partial<Layer>
      })
      const sizes = layers.map((_, i) => plain(8 + Math.floor(random() * 60), 8 + Math.floor(random() * 40), [i * 100, 255 - i * 100, 50]))
      const show = scene(
        layers.map((_, i) => ({ id: `i${i}`, treatment: random() < 0.3 ? [stepWith('crop', random() < 0.5 ? {} : { left: 20 })] : [] })),
        layers,
      )
      const { most, drawn } = both(show, new Map(sizes.map((picture, i) => [inputSourceId(`i${i}`), picture])))
      if (drawn < 3) culled += 1
      // A share of one may come out as one less a rounding.
      expect(most, `round ${round}`).toBeLessThan(1e-12)
    }
    // The property says something only where culling happens.
    expect(culled).toBeGreaterThan(20)
  })
})
