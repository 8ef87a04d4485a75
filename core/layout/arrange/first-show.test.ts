import { describe, expect, it } from 'vitest'
import { inputIdOf } from '../../layers/index.ts'
import { layersOf } from '../../layers/tree.ts'
import { showSchema } from '../../show/schema.ts'
import type { Layer, Scene, Show } from '../../show/show.ts'
import { safeArea } from '../safe-area.ts'
import { firstScenes, firstShow, purposes, standinShowDevices, type FirstWords } from './first-show.ts'

const words: FirstWords = {
  camera: 'Camera',
  wall: 'Wall',
  screen: 'Screen',
  table: 'Table camera',
  text: 'Text',
  divider: 'Divider',
  ink: 'Ink',
  yourName: 'Your name',
  backSoon: 'Back in a moment',
  thanks: 'Thank you',
  scenes: {
    ...(Object.fromEntries(firstScenes.map((name) => [name, name])) as FirstWords['scenes']),
    ...{ named: 'N', alone: 'A', soon: 'S', beside: 'B', shoulder: 'O', corner: 'C', tableAndYou: 'T', tableAlone: 'J', first: 'F' },
  },
}
function made(purpose: (typeof purposes)[number], devices = standinShowDevices): Show {
  let count = 0
  return firstShow('Evening', purpose, words, () => `n${(count += 1)}`, devices)
}
const shown = (show: Show, scene: Scene) =>
  layersOf(scene)
    .filter(({ visible }) => visible)
    .map((layer) => show.inputs.find(({ id }) => id === inputIdOf(layer))?.kind ?? layer.kind)
const boxOf = (show: Show, scene: Scene, kind: string): Layer['placement'] =>
  scene.layers.find((layer) => show.inputs.find(({ id }) => id === inputIdOf(layer))?.kind === kind)!.placement

describe('a first show', () => {
  it.each(purposes)('for %s is a valid show whose inputs are all used, and whose ids are all different', (purpose) => {
    const show = made(purpose)
    expect(showSchema.safeParse(show).error).toBeUndefined()
    const used = new Set(show.scenes.flatMap(layersOf).map(inputIdOf))
    expect(show.inputs.filter(({ id }) => !used.has(id))).toEqual([])
    const ids = [...show.inputs, ...show.scenes, ...show.scenes.flatMap(layersOf)].map(({ id }) => id)
    expect(new Set(ids).size).toBe(ids.length)
  })

  it('has the scenes of its purpose, each with what it shows', () => {
    const seen = (purpose: (typeof purposes)[number]) => {
      const show = made(purpose)
      return Object.fromEntries(show.scenes.map((scene) => [scene.name, shown(show, scene)]))
    }
    expect(seen('talk')).toEqual({ N: ['colour', 'camera', 'text'], A: ['colour', 'camera'], S: ['colour', 'text'] })
    expect(seen('slides')).toMatchObject({ O: ['colour', 'camera', 'screen'], C: ['colour', 'screen', 'camera'], A: ['colour', 'camera'] })
    expect(seen('table')).toEqual({ T: ['camera', 'camera'], J: ['camera'], A: ['colour', 'camera'] })
    expect(seen('other')).toEqual({ F: ['colour', 'camera'] })
  })

  it('puts the presenter beside a screen, at a third, and small in a corner inside the safe area (EBU R 95)', () => {
    const show = made('slides')
    const [beside, , corner] = show.scenes as [Scene, Scene, Scene, Scene]
    const [screen, presenter] = [boxOf(show, beside, 'screen'), boxOf(show, beside, 'camera')]
    expect(screen.x + screen.width).toBeLessThanOrEqual(presenter.x + 1)
    expect(presenter.width / 1280).toBeCloseTo(1 / 3, 2)
    const small = boxOf(show, corner, 'camera')
    const safe = safeArea('title', 1280, 720)
    expect(small.x + small.width).toBeLessThanOrEqual(safe.x + safe.width)
    expect(small.y + small.height).toBeLessThanOrEqual(safe.y + safe.height)
    expect(small.width * small.height).toBeLessThan((1280 * 720) / 4)
  })

  it('uses the devices that were chosen, and says on the holding card what the language says', () => {
    const own = { type: 'device', deviceId: 'c1', label: 'Own' } as const
    const show = made('table', { ...standinShowDevices, table: own })
    expect(show.inputs.find(({ name }) => name === 'Table camera')).toMatchObject({ device: own })
    expect(show.holdingCard).toEqual({ title: 'Back in a moment', detail: 'Evening' })
  })
})
