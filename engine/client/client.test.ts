import { afterEach, describe, expect, it, vi } from 'vitest'
import { setPairTransition, setSceneTransition, setUsualTransition } from '../../core/show/show-transitions.ts'
import { usualTransitions, type Transition } from '../../core/transitions/index.ts'
import { updateScene } from '../../core/show/edits.ts'
import { FakeWorker } from '../../tests/support/fake-worker.ts'
import { testShow } from '../../tests/support/shows.ts'
import { WEBCAM } from '../output-order.ts'
import { EngineLink } from './engine-link.ts'
import { OutputCalls } from './output-calls.ts'
import { PictureCalls } from './picture-calls.ts'
import { ProgrammeCalls } from './programme-calls.ts'

function setUp() {
  const worker = new FakeWorker()
  return { worker, link: new EngineLink(worker as unknown as Worker) }
}

describe('questions to the engine', () => {
  it('each gets its own answer, in whatever order they come', async () => {
    const { worker, link } = setUp()
    const pictures = new PictureCalls(link)
    const first = pictures.pick('in', 0.5, 0.5, null, null)
    const second = pictures.pick('in', 0.1, 0.1, null, null)
    const [a, b] = worker.all('pick').map(({ requestId }) => requestId as number)
    expect(a).not.toBe(b)
    link.answer(b!, '#bbbbbb')
    link.answer(a!, '#aaaaaa')
    link.answer(a!, '#cccccc')
    expect(await Promise.all([first, second])).toEqual(['#aaaaaa', '#bbbbbb'])
  })

  it('are answered with nothing when the engine ends', async () => {
    const { worker, link } = setUp()
    const pictures = new PictureCalls(link)
    const waiting = [pictures.grab('in', null, null), pictures.pick('in', 0, 0, null, null)]
    link.dispose()
    expect(worker.isTerminated).toBe(true)
    expect(await Promise.all(waiting)).toEqual([null, null])
  })

  it('about covers are dropped once nobody waits, and never asked when nobody does', async () => {
    const { worker, link } = setUp()
    const pictures = new PictureCalls(link)
    const gone = new AbortController()
    const cover = pictures.cover(testShow(), 'any', 320, gone.signal)
    const { requestId } = worker.all('cover')[0]!
    gone.abort()
    expect(await cover).toBeNull()
    expect(worker.all('dropCover')).toEqual([{ type: 'dropCover', requestId }])
    expect(await pictures.cover(testShow(), 'any', 320, gone.signal)).toBeNull()
    expect(worker.all('cover')).toHaveLength(1)
    // One that was answered is not dropped afterwards.
    const later = new AbortController()
    const answered = pictures.cover(testShow(), 'any', 320, later.signal)
    link.answer(worker.all('cover')[1]!['requestId'] as number, null)
    await answered
    later.abort()
    expect(worker.all('dropCover')).toHaveLength(1)
  })
})

describe('shows and what is on air', () => {
  const show = testShow()
  const [first, second] = show.scenes.map(({ id }) => id) as [string, string]
  const named = updateScene(show, first, (scene) => ({ ...scene, name: 'Hello' }))

  it('a show is sent whole once, then as patches, and not at all where nothing changed', () => {
    const { worker, link } = setUp()
    const programme = new ProgrammeCalls(link)
    const onAir = { showId: 'a', sceneId: first }
    programme.follow({ isSent: false, open: { showId: 'a', show }, held: null, onAir })
    expect(worker.types).toEqual(['document', 'openShow', 'programme'])
    expect(worker.sent[0]).toMatchObject({ showId: 'a', change: { type: 'whole' } })
    programme.follow({ isSent: false, open: { showId: 'a', show }, held: null, onAir })
    expect(worker.sent).toHaveLength(3)
    programme.follow({ isSent: false, open: { showId: 'a', show: named }, held: null, onAir })
    expect(worker.sent.at(-1)).toMatchObject({ type: 'document', change: { type: 'patch' } })
    programme.follow({ isSent: false, open: { showId: 'a', show: named }, held: null, onAir: { showId: 'a', sceneId: second } })
    expect(worker.sent.at(-1)).toMatchObject({ type: 'programme', message: { type: 'take', scene: { showId: 'a', sceneId: second } } })
  })

  it('scenes follow each other as the show has it while somebody sees them, and by a cut otherwise', () => {
    const { worker, link } = setUp()
    const programme = new ProgrammeCalls(link)
    const moving = setPairTransition(setSceneTransition(show, second, usualTransitions.wipe), second, first, usualTransitions.push)
    const usual = setUsualTransition(moving, usualTransitions.dissolve)
    const take = (sceneId: string, isSent: boolean, showId = 'a') => {
      programme.follow({ isSent, open: { showId, show: usual }, held: null, onAir: { showId, sceneId } })
      return (worker.all('programme').at(-1)!['message'] as { transition: Transition }).transition
    }
    expect(take(first, false)).toEqual(usualTransitions.cut)
    expect(take(second, false)).toEqual(usualTransitions.cut)
    // What comes first to an audience has nothing to come from.
    expect(take(first, true)).toEqual(usualTransitions.cut)
    expect(take(second, true)).toEqual(usualTransitions.wipe)
    expect(take(first, true)).toEqual(usualTransitions.push)
    // After a scene of another show no pair is meant, though the ids are the same.
    expect(take(second, true, 'b')).toEqual(usualTransitions.wipe)
    expect(take(first, true, 'a')).toEqual(usualTransitions.dissolve)
  })

  it('a scene that the open show lost is taken from its earlier state, before the newer one comes', () => {
    const { worker, link } = setUp()
    const programme = new ProgrammeCalls(link)
    const without = { ...show, scenes: show.scenes.slice(1) }
    programme.follow({ isSent: false, open: { showId: 'a', show: without }, held: { showId: 'a', show }, onAir: { showId: 'a', sceneId: first } })
    expect(worker.types).toEqual(['document', 'programme', 'document', 'openShow'])
    expect(worker.sent[2]).toMatchObject({ change: { type: 'patch' } })
  })

  it('another show on air is sent beside the open one, and dropped when it is neither', () => {
    const { worker, link } = setUp()
    const programme = new ProgrammeCalls(link)
    const onAir = { showId: 'b', sceneId: second }
    programme.follow({ isSent: false, open: { showId: 'a', show }, held: { showId: 'b', show }, onAir })
    expect(worker.all('document').map(({ showId }) => showId)).toEqual(['b', 'a'])
    programme.follow({ isSent: false, open: { showId: 'a', show }, held: null, onAir: { showId: 'a', sceneId: first } })
    expect(worker.all('dropDocument')).toEqual([{ type: 'dropDocument', showId: 'b' }])
  })
})

describe('outputs', () => {
  afterEach(() => vi.unstubAllGlobals())

  it('have one track while they run, whoever asks, and stop it when they end', () => {
    const stops: number[] = []
    let count = 0
    vi.stubGlobal(
      'MediaStreamTrackGenerator',
      class {
        readonly writable = {}
        readonly #number = (count += 1)
        contentHint = ''
        stop(): void {
          stops.push(this.#number)
        }
      },
    )
    const { worker, link } = setUp()
    const outputs = new OutputCalls(link)
    const track = outputs.open(WEBCAM)
    expect(outputs.open(WEBCAM)).toBe(track)
    expect(worker.all('openOutput')).toHaveLength(1)
    outputs.close(WEBCAM.id)
    outputs.closeAll()
    expect([outputs.trackOf(WEBCAM.id), stops, worker.all('closeOutput').length]).toEqual([null, [1], 1])
    outputs.open(WEBCAM)
    outputs.closeAll()
    expect(stops).toEqual([1, 2])
  })
})
