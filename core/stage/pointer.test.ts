// Pointers over pictures: where they are, how dark it is round a light, and for which scene.
import { describe, expect, it } from 'vitest'
import { testShow } from '../../tests/support/shows.ts'
import { EMPTY_PROGRAMME, programmeAfter } from '../programme/programme.ts'
import { outputStageOf } from '../programme/programme-stage.ts'
import { renderReference } from '../render/render-reference.ts'
import { usualTransitions } from '../transitions/index.ts'
import { planOutputs } from './plan-frame.ts'
import type { Pointer } from './pointer.ts'

const show = { ...testShow(), canvas: { widthPx: 200, heightPx: 100, frameRate: 30 } }
const white = {
  ...show,
  inputs: [{ id: 'white', kind: 'colour' as const, name: 'White', colour: '#ffffff', treatment: [] }],
}
const scene = {
  ...white.scenes[0]!,
  layers: [
    {
      ...white.scenes[0]!.layers[0]!,
      kind: 'input' as const,
      inputId: 'white',
      pageId: null,
      crop: null,
      treatment: [],
      placement: { x: 0, y: 0, width: 200, height: 100, angleDeg: 0, fit: 'stretch' as const },
    },
  ],
}

function pixel(pointer: Pointer, x: number, y: number, scale = 1): number[] {
  const plan = planOutputs(white, { feed: { stage: { scene: scene as never }, over: [], scale, pointer } }, 0, new Map())
  const { data, widthPx } = renderReference(plan, new Map())
  return [0, 1, 2].map((channel) => Math.round(255 * data[(y * widthPx + x) * 4 + channel]!))
}

describe('a pointer', () => {
  it('is a red dot in a white ring, also half outside the picture, and as large in a smaller one', () => {
    expect(pixel({ kind: 'dot', x: 0.5, y: 0.5 }, 100, 50)).toEqual([217, 64, 46])
    expect(pixel({ kind: 'dot', x: 0.5, y: 0.5 }, 110, 50)).toEqual([255, 255, 255])
    expect(pixel({ kind: 'dot', x: 0, y: 0 }, 0, 0)[1]).toBeLessThan(100)
    expect(pixel({ kind: 'dot', x: 1, y: 1 }, 99, 49, 0.5)[1]).toBeLessThan(255)
  })

  it('is a light: nothing changes in its middle, and 62 % is taken away outside', () => {
    const light = { kind: 'spotlight', x: 0.5, y: 0.5 } as const
    // 0.2 of the height is 20 pixels, of which the outer fifth falls off.
    expect(pixel(light, 100, 50)).toEqual([255, 255, 255])
    expect(pixel(light, 114, 50)).toEqual([255, 255, 255])
    expect(pixel(light, 121, 50)).toEqual([97, 97, 97])
    expect(pixel(light, 0, 0)).toEqual([97, 97, 97])
    const half = pixel(light, 117, 50)[0]!
    expect(half).toBeGreaterThan(97)
    expect(half).toBeLessThan(255)
  })

  it('is seen over its own scene only, and goes when told to', () => {
    const take = { type: 'take', scene: { showId: 'show', sceneId: scene.id }, transition: usualTransitions.cut } as const
    const find = () => ({ show: white, scene: scene as never })
    const pointerOf = (sceneId: string | null) => {
      const pointer = sceneId === null ? null : { kind: 'dot' as const, x: 0.5, y: 0.5, showId: 'show', sceneId }
      const programme = programmeAfter(programmeAfter(EMPTY_PROGRAMME, take, 0), { type: 'point', pointer }, 0)
      return outputStageOf(programme, find, { graphics: true }, 1)!.output.pointer?.kind
    }
    expect([pointerOf(scene.id), pointerOf('another'), pointerOf(null)]).toEqual(['dot', undefined, undefined])
  })
})
