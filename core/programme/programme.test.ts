// What is on air after messages, and what is planned of it.
import { describe, expect, it } from 'vitest'
import { picturesFor, showCase } from '../../tests/support/random-shows.ts'
import { renameShow, updateScene } from '../show/edits.ts'
import type { Scene, Show } from '../show/show.ts'
import { seededRandom } from '../random/seeded.ts'
import { renderOutputs, renderReference } from '../render/render-reference.ts'
import { planFrame, planOutputs } from '../stage/plan-frame.ts'
import { usualTransitions } from '../transitions/index.ts'
import {
  EMPTY_PROGRAMME,
  programmeAfter,
  scenesNeeded,
  sceneOnAir,
  settledProgramme,
  type Programme,
  type ProgrammeMessage,
  type SceneRef,
} from './programme.ts'
import { isDeck } from '../inputs/deck.ts'
import { turnedShow } from './turned-show.ts'
import { outputStageOf, programmeParts, withoutGoneGraphics, type FindScene } from './programme-stage.ts'

const deckPage = (number: number) => ({
  id: `p${number}`,
  asset: String(number).padStart(64, '0'),
  widthPx: 16,
  heightPx: 9,
  number,
  title: '',
  notes: '',
  skipped: false,
  strokes: [],
})
const ref = (sceneId: string, showId = 'open'): SceneRef => ({ showId, sceneId })
const take = (sceneId: string, transition: keyof typeof usualTransitions = 'cut', showId = 'open'): ProgrammeMessage => ({
  type: 'take',
  scene: ref(sceneId, showId),
  transition: usualTransitions[transition],
})
const after = (programme: Programme, ...messages: readonly (readonly [number, ProgrammeMessage])[]) =>
  messages.reduce((current, [nowMs, message]) => programmeAfter(current, message, nowMs), programme)
const DURATION = usualTransitions.dissolve.durationMs

describe('programmeAfter', () => {
  it('puts the first scene on air as if it had always been there, later ones with their time', () => {
    const first = after(EMPTY_PROGRAMME, [100, take('a', 'dissolve')])
    expect(first.stage).toEqual({ type: 'scene', scene: { ref: ref('a'), enteredMs: null, leavesMs: null } })
    const second = after(first, [200, take('b')])
    expect(second.stage).toEqual({ type: 'scene', scene: { ref: ref('b'), enteredMs: 200, leavesMs: null } })
    expect(sceneOnAir(second)).toEqual(ref('b'))
  })

  it('leaves alone what is on air already, and takes the card away', () => {
    const on = after(EMPTY_PROGRAMME, [0, take('a')], [10, { type: 'card', isShown: true }])
    expect(on.isCardShown).toBe(true)
    const again = after(on, [20, take('a', 'dissolve')])
    expect(again).toEqual({ ...on, isCardShown: false })
    expect(after(again, [30, take('a')])).toBe(again)
  })

  it('goes by a transition, which is over at its end and not a millisecond before', () => {
    const going = after(EMPTY_PROGRAMME, [0, take('a')], [1000, take('b', 'dissolve')])
    expect(sceneOnAir(going)).toEqual(ref('b'))
    expect(scenesNeeded(going)).toEqual([ref('b'), ref('a')])
    expect(settledProgramme(going, 999 + DURATION)).toBe(going)
    const over = settledProgramme(going, 1000 + DURATION)
    expect(over.stage).toEqual({ type: 'scene', scene: { ref: ref('b'), enteredMs: 1000, leavesMs: null } })
    expect(scenesNeeded(over)).toEqual([ref('b')])
  })

  it('interrupts a transition without ending it, also by the scene that it came from', () => {
    const going = after(EMPTY_PROGRAMME, [0, take('a')], [1000, take('b', 'dissolve')], [1300, take('a', 'wipe')])
    expect(going.stage).toMatchObject({ type: 'transition', to: { ref: ref('a'), enteredMs: 1300 }, from: { type: 'transition', to: { leavesMs: 1300 } } })
    expect(settledProgramme(going, 1000 + DURATION).stage).toMatchObject({ from: { type: 'scene', scene: { ref: ref('b') } } })
    expect(after(going, [1400, take('c')]).stage).toEqual({ type: 'scene', scene: { ref: ref('c'), enteredMs: 1400, leavesMs: null } })
  })

  it('a thousand takes in a row leave no more than what is still seen', () => {
    let programme = after(EMPTY_PROGRAMME, [0, take('a')])
    for (let i = 1; i <= 1000; i += 1) programme = settledProgramme(after(programme, [i * 100, take(`s${i % 7}`, 'dissolve')]), i * 100)
    expect(scenesNeeded(programme).length).toBeLessThanOrEqual(1 + Math.ceil(DURATION / 100) + 1)
  })

  it('shows graphics over any scene, each once, the newest in front, until they are hidden', () => {
    const show = (id: string): ProgrammeMessage => ({ type: 'showGraphic', id, scene: ref(id) })
    const on = after(EMPTY_PROGRAMME, [0, take('a')], [10, show('name')], [20, show('logo')], [30, take('b')])
    expect(on.graphics.map(({ id, scene }) => [id, scene.enteredMs])).toEqual([
      ['name', 10],
      ['logo', 20],
    ])
    expect(after(on, [40, show('name')])).toBe(on)
    const going = after(on, [50, { type: 'hideGraphic', id: 'name' }])
    expect(going.graphics[0]!.scene.leavesMs).toBe(50)
    expect(after(going, [60, { type: 'hideGraphic', id: 'name' }])).toBe(going)
    expect(after(going, [60, show('name')]).graphics.map(({ id, scene }) => [id, scene.enteredMs, scene.leavesMs])).toEqual([
      ['logo', 20, null],
      ['name', 60, null],
    ])
    expect(after(on, [70, { type: 'hideAllGraphics' }]).graphics.map(({ scene }) => scene.leavesMs)).toEqual([70, 70])
  })

  it('remembers what is next, whether edits wait, and forgets everything when it is cleared', () => {
    const on = after(EMPTY_PROGRAMME, [0, take('a')], [1, { type: 'standby', scene: ref('b') }], [2, { type: 'holdEdits', holds: true }])
    expect([on.standby, on.holdsEdits]).toEqual([ref('b'), true])
    expect(after(on, [3, { type: 'standby', scene: ref('b') }], [4, { type: 'holdEdits', holds: true }])).toBe(on)
    expect(after(on, [5, { type: 'clear' }])).toEqual(EMPTY_PROGRAMME)
  })

  it('brings something of a scene near: no new scene, so that its layers neither come in nor go', () => {
    const glide = usualTransitions.glide
    const focus = { layerId: 'page', fills: true, closer: null }
    const near = (at: typeof focus | null): ProgrammeMessage => ({
      type: 'take',
      scene: at === null ? ref('b') : { ...ref('b'), focus: at },
      transition: glide,
    })
    const before = after(EMPTY_PROGRAMME, [0, take('a')], [100, take('b')])
    const focused = after(before, [200, near(focus)])
    expect(focused.stage).toEqual({
      type: 'transition',
      from: { type: 'scene', scene: { ref: ref('b'), enteredMs: 100, leavesMs: null } },
      to: { ref: { ...ref('b'), focus }, enteredMs: 100, leavesMs: null },
      transition: glide,
      beganMs: 200,
    })
    // The same again is nothing new; another spot, and going back, are.
    expect(programmeAfter(focused, near({ ...focus }), 300)).toBe(focused)
    const closer = after(focused, [5000, near({ ...focus, closer: { x: 0.2, y: 0.3, scale: 2 } } as never)], [9000, near(null)])
    expect(settledProgramme(closer, 20_000).stage).toEqual(before.stage)
    // Another scene takes it along nowhere.
    expect(sceneOnAir(after(focused, [400, take('a')]))).toEqual(ref('a'))
  })

  it('turns decks whatever is on air, and leaves them there when nothing is', () => {
    const turn = (inputId: string, pageId: string, showId = 'open'): ProgrammeMessage => ({ type: 'turnDeck', showId, inputId, pageId })
    const on = after(EMPTY_PROGRAMME, [1, turn('deck', 'p2')], [2, turn('deck', 'p3')], [3, turn('other', 'p9')], [4, turn('deck', 'p1', 'held')])
    expect(on.decks).toHaveLength(3)
    expect(programmeAfter(on, turn('deck', 'p3'), 5)).toBe(on)
    expect(after(on, [6, take('a')], [7, { type: 'clear' }]).decks).toBe(on.decks)
    const deck = {
      id: 'deck',
      kind: 'deck' as const,
      name: 'Slides',
      fileName: 's.pdf',
      plannedMin: null,
      treatment: [],
      pageId: 'p1',
      pages: [1, 2, 3].map(deckPage),
    }
    const show = { ...showCase(1).show, inputs: [deck] }
    const pageOf = (showId: string) => turnedShow(show, showId, on.decks).inputs.flatMap((input) => (isDeck(input) ? [input.pageId] : []))
    expect([pageOf('open'), pageOf('held'), pageOf('elsewhere')]).toEqual([['p3'], ['p1'], ['p1']])
    // Nothing to turn is the same show, and so is a page that is gone.
    expect(turnedShow(show, 'held', on.decks)).toBe(show)
    expect(turnedShow(show, 'open', [{ showId: 'open', inputId: 'deck', pageId: 'gone' }])).toBe(show)
  })

  it('random messages never leave a scene on air that nobody took, nor a transition longer than itself', () => {
    const random = seededRandom(91)
    const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
    const names = ['a', 'b', 'c', 'd']
    let programme = EMPTY_PROGRAMME
    let lastTaken: string | null = null
    for (let i = 0; i < 5000; i += 1) {
      const nowMs = i * 40
      const message = pick<() => ProgrammeMessage>([
        () => take((lastTaken = pick(names)), pick(['cut', 'dissolve', 'wipe', 'push'] as const)),
        () => ({ type: 'card', isShown: random() < 0.5 }),
        () => ({ type: 'showGraphic', id: pick(names), scene: ref(pick(names)) }),
        () => ({ type: 'hideGraphic', id: pick(names) }),
      ])()
      programme = settledProgramme(programmeAfter(programme, message, nowMs), nowMs)
      expect(sceneOnAir(programme)?.sceneId ?? null).toBe(lastTaken)
      expect(scenesNeeded(programme).length).toBeLessThanOrEqual(4 + 1 + DURATION / 40 + 2)
    }
  })
})

/** The largest difference of two pictures; infinite where they are not as large. */
function mostBetween(one: Float64Array, other: Float64Array): number {
  if (one.length !== other.length) return Infinity
  let most = 0
  for (let i = 0; i < one.length; i += 1) most = Math.max(most, Math.abs(one[i]! - other[i]!))
  return most
}

describe('what is planned of a programme', () => {
  const { show, infos } = showCase(302)
  const one = showCase(302)
  const [first, second] = show.scenes as [Scene, Scene]
  const shows = (...entries: readonly (readonly [string, Show])[]): FindScene => {
    const known = new Map(entries)
    return ({ showId, sceneId }) => {
      const found = known.get(showId)
      const scene = found?.scenes.find(({ id }) => id === sceneId)
      return found === undefined || scene === undefined ? null : { show: found, scene }
    }
  }
  const pictureAt = (programme: Programme, find: FindScene, timeMs: number, routing = { graphics: true }, scale = 1) => {
    const found = outputStageOf(programme, find, routing, scale)!
    const plan = planOutputs(found.show, { webcam: found.output }, timeMs, infos)
    return renderReference(plan, picturesFor(one, plan)).data
  }
  const plain = (scene: Scene, of = show) => {
    const plan = planFrame(of, { scene }, 0, infos)
    return renderReference(plan, picturesFor(one, plan)).data
  }

  it('is the scene itself, and at the end of a transition the next one, to the value', () => {
    const on = after(EMPTY_PROGRAMME, [0, take(first.id)], [0, take(second.id, 'dissolve')])
    const find = shows(['open', show])
    expect(mostBetween(pictureAt(after(EMPTY_PROGRAMME, [0, take(first.id)]), find, 0), plain(first))).toBe(0)
    expect(mostBetween(pictureAt(on, find, 0), plain(first))).toBe(0)
    expect(mostBetween(pictureAt(on, find, DURATION), plain(second))).toBe(0)
  })

  it('sees an edit in the middle of a transition, of either scene', () => {
    const going = after(EMPTY_PROGRAMME, [0, take(first.id)], [0, take(second.id, 'dissolve')])
    const middle = DURATION / 2
    const before = pictureAt(going, shows(['open', show]), middle)
    for (const scene of [first, second]) {
      const edited = updateScene(show, scene.id, (each) => ({ ...each, layers: [] }))
      const seen = pictureAt(going, shows(['open', edited]), middle)
      expect(mostBetween(seen, before)).toBeGreaterThan(0.01)
      const stage = { from: { scene: edited.scenes[0]! }, to: { scene: edited.scenes[1]! }, transition: usualTransitions.dissolve, beganMs: 0 }
      const plan = planFrame(edited, stage, middle, infos)
      expect(mostBetween(seen, renderReference(plan, picturesFor(one, plan)).data)).toBe(0)
      expect(programmeParts(going, shows(['open', edited]))).not.toEqual(programmeParts(going, shows(['open', show])))
    }
  })

  it('dissolves from a show that is held into one that is open: half way it is the mean of both', () => {
    const open = renameShow(
      updateScene(show, first.id, (scene) => ({ ...scene, layers: second.layers })),
      'Open',
    )
    const going = after(EMPTY_PROGRAMME, [0, take(first.id, 'cut', 'held')], [0, take(first.id, 'dissolve', 'open')])
    const find = shows(['held', show], ['open', open])
    const [from, to] = [plain(first), plain(open.scenes[0]!, open)]
    const seen = pictureAt(going, find, DURATION / 2)
    // Ease in and out is half way at half its time (CSS Easing Functions Level 1: the curve is symmetric).
    const mean = from.map((value, i) => (value + to[i]!) / 2)
    expect(mostBetween(seen, mean)).toBeLessThan(1e-6)
    const alone = pictureAt(going, shows(['open', open]), DURATION / 2)
    expect(mostBetween(alone, to), 'the held show is gone for good').toBe(0)
  })

  it('another canvas of the same shape fills the picture', () => {
    const large = { ...show.canvas, widthPx: show.canvas.widthPx * 2, heightPx: show.canvas.heightPx * 2 }
    const doubled = (scene: Scene): Scene => ({
      ...scene,
      layers: [
        {
          ...scene.layers[0]!,
          frame: { ...scene.layers[0]!.frame, border: null, shadow: null },
          placement: { x: 0, y: 0, width: large.widthPx, height: large.heightPx, angleDeg: 0, fit: 'stretch' as const },
        },
      ],
    })
    const big: Show = { ...show, canvas: large, scenes: [doubled(first), second] }
    const small: Show = {
      ...show,
      scenes: [
        {
          ...big.scenes[0]!,
          layers: [
            { ...big.scenes[0]!.layers[0]!, placement: { ...big.scenes[0]!.layers[0]!.placement, width: show.canvas.widthPx, height: show.canvas.heightPx } },
          ],
        },
        { ...second, layers: [] },
      ],
    }
    // On the way out of the large one at its very first moment: the picture has the size of where it goes.
    const going = after(EMPTY_PROGRAMME, [0, take(first.id, 'cut', 'big')], [0, take(second.id, 'dissolve', 'small')])
    const seen = pictureAt(going, shows(['big', big], ['small', small]), 0)
    const same = plain(small.scenes[0]!, small)
    expect(seen.length).toBe(same.length)
    expect(mostBetween(seen, same)).toBeLessThan(1e-6)
  })

  it('two outputs with other routing and size over one list of nodes: each is what it is alone', () => {
    const on = after(EMPTY_PROGRAMME, [0, take(first.id)], [0, { type: 'showGraphic', id: 'over', scene: ref(second.id) }])
    const find = shows(['open', show])
    const webcam = outputStageOf(on, find, { graphics: true }, 1)!
    const clean = outputStageOf(on, find, { graphics: false }, 1)!
    const small = outputStageOf(on, find, { graphics: true }, 0.5)!
    const plan = planOutputs(show, { webcam: webcam.output, clean: clean.output, small: small.output }, 10_000, infos)
    const all = renderOutputs(plan, picturesFor(one, plan))
    expect(all.get('small')!.widthPx).toBe(Math.round(show.canvas.widthPx / 2))
    for (const [id, { output }] of Object.entries({ webcam, clean, small })) {
      const alone = planOutputs(show, { [id]: output }, 10_000, infos)
      const expected = renderReference(alone, picturesFor(one, alone)).data
      expect(mostBetween(all.get(id)!.data, expected), id).toBeLessThan(1e-9)
    }
    expect(mostBetween(all.get('clean')!.data, plain(first))).toBe(0)
    expect(mostBetween(all.get('webcam')!.data, all.get('clean')!.data)).toBeGreaterThan(0.01)
  })

  it('a graphic without exits goes at once, one with an exit when that is over', () => {
    const fade = { kind: 'fade', durationMs: 300, delayMs: 100, easing: usualTransitions.dissolve.easing, side: 'left' } as const
    const layer = { ...first.layers[0]!, exit: fade }
    const leaving = updateScene(show, first.id, (scene) => ({ ...scene, layers: [layer] }))
    const on = after(EMPTY_PROGRAMME, [0, { type: 'showGraphic', id: 'g', scene: ref(first.id) }], [1000, { type: 'hideGraphic', id: 'g' }])
    const bare = updateScene(show, first.id, (scene) => ({ ...scene, layers: scene.layers.map((each) => ({ ...each, exit: null })) }))
    expect(withoutGoneGraphics(on, shows(['open', bare]), 1000).graphics).toEqual([])
    expect(withoutGoneGraphics(on, shows(['open', leaving]), 1399)).toBe(on)
    expect(withoutGoneGraphics(on, shows(['open', leaving]), 1400).graphics).toEqual([])
    expect(withoutGoneGraphics(on, shows(), 0).graphics).toEqual([])
  })
})
