// Parts of the worker that wait for others: files that steps refer to, and the person finder's worker.
import { inputSourceId } from '../../core/inputs/source-ids.ts'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { addStep } from '../../tests/support/steps.ts'
import { testShow } from '../../tests/support/shows.ts'
import type { Picture } from '../../core/picture/picture.ts'
import { paintClipping } from './paint-clipping.ts'
import { PersonFinder } from './person-finder.ts'
import { ResourceBook } from './resource-book.ts'
import { stepsOf, treatmentOf } from './steps-of.ts'

const CUBE = 'LUT_1D_SIZE 2\n0 0 0\n1 1 1\n'
const HASH = 'd'.repeat(64)
afterEach(() => vi.unstubAllGlobals())

/** Lets everything that is ready happen. */
const settle = () => new Promise((resolve) => setImmediate(resolve))

describe('ResourceBook', () => {
  function bookWith(answer: () => Response) {
    const asked: string[] = []
    const changes: number[] = []
    const failures: string[] = []
    vi.stubGlobal('fetch', async (url: string) => {
      asked.push(url)
      return answer()
    })
    const noPicture = () => Promise.reject(new Error('no picture was expected'))
    const book = new ResourceBook((asset) => `/files/${asset}`, noPicture, {
      onChange: () => changes.push(changes.length),
      onFailed: (reference, reason) => failures.push(`${reference.slice(0, 4)}: ${reason}`),
    })
    return { book, asked, changes, failures }
  }
  const withLook = (look: string) => addStep(testShow(), 'look', { look })

  it('fetches a look once, however often the show changes', async () => {
    const { book, asked, changes } = bookWith(() => new Response(CUBE, { headers: { 'content-type': 'application/x-cube' } }))
    book.follow(withLook(HASH))
    book.follow(withLook(HASH))
    await settle()
    book.follow(withLook(HASH))
    expect(asked).toEqual([`/files/${HASH}`])
    expect(changes).toHaveLength(1)
    expect(book.resources.lut(HASH)).toMatchObject({ kind: '1d', size: 2 })
    expect(book.resources.lut('f'.repeat(64))).toBeNull()
  })

  it('needs no file for our own looks', async () => {
    const { book, asked } = bookWith(() => new Response(CUBE))
    book.follow(withLook('inkwell'))
    await settle()
    expect(asked).toEqual([])
  })

  it('says what failed and tries again with the next change', async () => {
    let isThere = false
    const { book, asked, failures } = bookWith(() =>
      isThere ? new Response(CUBE, { headers: { 'content-type': 'application/x-cube' } }) : new Response('', { status: 404 }),
    )
    book.follow(withLook(HASH))
    await settle()
    expect(failures).toEqual(['dddd: the look could not be read (404)'])
    isThere = true
    book.follow(withLook(HASH))
    await settle()
    expect(asked).toHaveLength(2)
    expect(book.resources.lut(HASH)).not.toBeNull()
  })

  it('knows a colour that takes the room’s place, and follows it when it changes', () => {
    const { book, changes } = bookWith(() => new Response(CUBE))
    const show = testShow()
    const input = show.inputs.find((each) => each.kind === 'colour') ?? { id: 'c1', kind: 'colour' as const, name: 'Plain', treatment: [], colour: '#336699' }
    const withColour = (colour: string) => {
      const changed = addStep(
        { ...show, inputs: [...show.inputs.filter((each) => each.id !== input.id), { ...input, kind: 'colour' as const, colour }] },
        'room',
        { effect: 'replaced', input: input.id },
      )
      book.follow(changed)
    }
    withColour('#336699')
    expect([...book.resources.picture(input.id)!.data]).toEqual([51, 102, 153, 255])
    withColour('#336699')
    withColour('#ffffff')
    expect([...book.resources.picture(input.id)!.data]).toEqual([255, 255, 255, 255])
    expect(changes).toHaveLength(2)
  })
})

describe('PersonFinder', () => {
  /** A worker that only notes what it is told. */
  class NotingWorker {
    static made: NotingWorker[] = []
    readonly told: { type: string; sourceId?: string }[] = []
    isEnded = false
    onmessage: ((event: { data: unknown }) => void) | null = null
    onerror: ((event: { message: string }) => void) | null = null
    constructor() {
      NotingWorker.made.push(this)
    }
    postMessage(message: { type: string }) {
      this.told.push(message)
    }
    terminate() {
      this.isEnded = true
    }
  }
  let nowMs = 0
  let isShort = false
  beforeEach(() => {
    NotingWorker.made = []
    nowMs = 1000
    isShort = false
    vi.stubGlobal('Worker', NotingWorker)
    vi.useFakeTimers()
    vi.spyOn(performance, 'now').mockImplementation(() => nowMs)
  })
  afterEach(() => {
    vi.useRealTimers()
    vi.restoreAllMocks()
  })

  const camera = testShow().inputs[0]!
  const id = inputSourceId(camera.id)
  const picture: Picture = { format: 'rgba', widthPx: 64, heightPx: 36, data: new Uint8Array(64 * 36 * 4) }
  const withRoom = (on = true) => addStep(testShow(), 'room', { effect: 'softened' }, on)

  function finderWith(newest: Picture | null = picture) {
    const masks: (string | null)[] = []
    const failures: string[] = []
    const finder = new PersonFinder(
      { runtimeUrl: '/person', modelUrl: '/person/model' },
      {
        onMask: (_sourceId, mask) => masks.push(mask === null ? null : `${mask.widthPx}×${mask.heightPx}`),
        onFailed: (reason) => failures.push(reason),
        pictureOf: () => newest,
        isShortOfTime: () => isShort,
      },
    )
    return { finder, masks, failures }
  }
  const answer = () => NotingWorker.made[0]!.onmessage!({ data: { type: 'mask', sourceId: id, mask: new Float32Array(256 * 144) } })
  const looks = () => NotingWorker.made[0]!.told.filter((message) => message.type === 'look').length

  it('starts no worker until a step works on the room, and ends it when none does any more', () => {
    const { finder, masks } = finderWith()
    finder.follow(testShow())
    finder.look(id, picture)
    expect(NotingWorker.made).toHaveLength(0)
    finder.follow(withRoom())
    expect(NotingWorker.made).toHaveLength(1)
    finder.follow(withRoom(false))
    expect(NotingWorker.made[0]!.isEnded).toBe(true)
    expect(masks).toEqual([null])
  })

  it('looks at one picture at a time, and not more often than it may', () => {
    const { finder, masks } = finderWith()
    finder.follow(withRoom())
    finder.look(id, picture)
    finder.look(id, picture)
    expect(looks()).toBe(1)
    answer()
    expect(masks).toEqual(['256×144'])
    nowMs += 20
    finder.look(id, picture)
    expect(looks()).toBe(1)
    nowMs += 40
    finder.look(id, picture)
    expect(looks()).toBe(2)
  })

  it('looks at the newest picture again when none follows: a held one keeps no old mask', () => {
    const { finder } = finderWith()
    finder.follow(withRoom())
    finder.look(id, picture)
    nowMs += 33
    // Came while the first was looked at, and is the last.
    finder.look(id, picture)
    answer()
    nowMs += 60
    vi.advanceTimersByTime(100)
    expect(looks()).toBe(2)
    answer()
    nowMs += 60
    vi.advanceTimersByTime(100)
    expect(looks()).toBe(2)
  })

  it('looks less often while pictures take long', () => {
    const { finder } = finderWith()
    finder.follow(withRoom())
    finder.look(id, picture)
    answer()
    isShort = true
    nowMs += 60
    finder.look(id, picture)
    expect(looks()).toBe(1)
    nowMs += 40
    finder.look(id, picture)
    expect(looks()).toBe(2)
  })

  it('goes on after a picture that could not be looked at, and tells when none can', () => {
    const { finder, failures, masks } = finderWith()
    finder.follow(withRoom())
    for (let i = 0; i < 12; i += 1) {
      finder.look(id, picture)
      expect(looks()).toBe(i + 1)
      NotingWorker.made[0]!.onmessage!({ data: { type: 'lookFailed', sourceId: id, reason: 'no memory' } })
      nowMs += 60
    }
    expect(failures).toEqual(['no memory'])
    finder.look(id, picture)
    answer()
    expect(masks).toEqual(['256×144'])
  })

  it('takes another worker when one gives no answer at all, a few times', () => {
    const { finder, failures } = finderWith()
    finder.follow(withRoom())
    finder.look(id, picture)
    for (let i = 0; i < 6; i += 1) {
      nowMs += 21_000
      finder.look(id, picture)
    }
    expect(NotingWorker.made).toHaveLength(4)
    expect(NotingWorker.made.slice(0, 4).every((worker) => worker.isEnded)).toBe(true)
    expect(failures).toEqual(['the person finder does not answer'])
  })

  it('tells of a failure and stops', () => {
    const { finder, failures } = finderWith()
    finder.follow(withRoom())
    NotingWorker.made[0]!.onmessage!({ data: { type: 'failed', reason: 'no model' } })
    expect(failures).toEqual(['no model'])
    expect(NotingWorker.made[0]!.isEnded).toBe(true)
  })
})

describe('treatments of an input and a layer', () => {
  it('come in this order, and only those that are on are done', () => {
    const show = testShow()
    const [scene] = show.scenes
    const layer = scene!.layers.find((each) => each.kind === 'input' && each.inputId === show.inputs[0]!.id)!
    const place = { sceneId: scene!.id, layerId: layer.id }
    const here = { id: 'here', kind: 'crop' as const, on: true, params: { left: 1, top: 0, right: 0, bottom: 0, feather: 0 } }
    const changed = {
      ...show,
      scenes: show.scenes.map((each) => ({ ...each, layers: each.layers.map((one) => (one.id === layer.id ? { ...one, treatment: [here] } : one)) })),
    }
    const input = changed.inputs[0]!
    expect(treatmentOf(changed, input, place).map((step) => step.id)).toEqual([...input.treatment.map((step) => step.id), 'here'])
    expect(treatmentOf(changed, input, null)).toEqual(input.treatment)
    expect(stepsOf(changed, input, place).length).toBe(input.treatment.filter((step) => step.on).length + 1)
    expect(treatmentOf(changed, input, { sceneId: 'gone', layerId: 'gone' })).toEqual(input.treatment)
  })
})

describe('paintClipping', () => {
  it('paints what is burnt out or drowned, and nothing that is clear', () => {
    const data = Uint8Array.of(255, 90, 90, 255, 1, 0, 1, 255, 128, 128, 128, 255, 255, 255, 255, 20)
    paintClipping(data)
    expect([...data]).toEqual([255, 0, 200, 255, 0, 190, 255, 255, 128, 128, 128, 255, 255, 255, 255, 20])
  })
})
