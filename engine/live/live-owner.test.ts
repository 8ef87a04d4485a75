import { describe, expect, it } from 'vitest'
import { LiveOwner, type Opened } from './live-owner.ts'
import { failureOf, isFailure, statusOf, type LiveFailure } from './live-state.ts'

/** An owner whose opens are answered by hand, and everything it says. */
function setUp(retries = true) {
  const log: string[] = []
  const timers = new Map<number, () => void>()
  let nextTimer = 1
  const owner = new LiveOwner<Opened & { name: string }>(
    {
      onState: (state) => log.push(statusOf(state)),
      onOpened: ({ name }) => log.push(`has ${name}`),
      onGone: () => log.push('gone'),
      failureOf: (error) => (error as Error).message as LiveFailure,
    },
    retries
      ? {
          setTimer: (run) => {
            timers.set(nextTimer, run)
            nextTimer += 1
            return nextTimer - 1
          },
          clearTimer: (timer) => timers.delete(timer),
        }
      : null,
  )
  const made = (name: string) => ({ name, stop: () => log.push(`stop ${name}`) })
  const answers: { resolve: (name: string) => void; reject: (reason: LiveFailure) => void }[] = []
  const later = () =>
    new Promise<Opened & { name: string }>((resolve, reject) => {
      answers.push({ resolve: (name) => resolve(made(name)), reject: (reason) => reject(new Error(reason)) })
    })
  const settle = () => new Promise((resolve) => setImmediate(resolve))
  return { owner, log, timers, made, answers, later, settle }
}

describe('what is live', () => {
  it('goes from starting to live, and to its end, stopped once', async () => {
    const { owner, log, answers, later, settle } = setUp()
    const started = owner.start(later)
    expect(log).toEqual(['starting'])
    answers[0]!.resolve('a')
    expect(await started).toEqual({ phase: 'live' })
    owner.stop('ended')
    owner.dispose()
    await settle()
    expect(log).toEqual(['starting', 'has a', 'live', 'stop a', 'gone', 'ended', 'gone'])
  })

  it('is live at once where opening answers at once', () => {
    const { owner, log, made } = setUp()
    void owner.start(() => made('a'))
    expect(log).toEqual(['starting', 'has a', 'live'])
  })

  it.each(['busy', 'missing', 'unplugged', 'broken'] as const)('that fails as %s is tried again, and says so until the answer is there', async (reason) => {
    const { owner, log, timers, answers, later, settle } = setUp()
    void owner.start(later)
    answers[0]!.reject(reason)
    await settle()
    expect(log).toEqual(['starting', 'gone', reason])
    const [again] = [...timers.values()]
    again!()
    expect(log).toHaveLength(3)
    answers[1]!.resolve('b')
    await settle()
    expect(log.slice(3)).toEqual(['has b', 'live'])
  })

  it.each(['refused', 'unsupported'] as const)('that is %s waits for the presenter', async (reason) => {
    const { owner, timers, answers, later, settle } = setUp()
    void owner.start(later)
    answers[0]!.reject(reason)
    await settle()
    expect(timers.size).toBe(0)
    void owner.retry()
    answers[1]!.resolve('b')
    await settle()
    expect(owner.state).toEqual({ phase: 'live' })
  })

  it('stops what comes after it was let go or asked for anew, and tells nothing of it', async () => {
    const { owner, log, answers, later, settle } = setUp()
    void owner.start(later)
    void owner.start(later)
    answers[0]!.resolve('late')
    answers[1]!.resolve('new')
    await settle()
    expect(log).toEqual(['starting', 'starting', 'stop late', 'has new', 'live'])
    void owner.retry()
    owner.stop('paused')
    answers[2]!.reject('busy')
    await settle()
    expect(log.slice(5)).toEqual(['stop new', 'gone', 'paused'])
  })

  it('keeps what is open until something else is there, and for good if there is nothing', async () => {
    const { owner, log, answers, later, settle } = setUp()
    void owner.start(later, { phase: 'asked', keepsOpened: true })
    expect(log).toEqual(['asked'])
    answers[0]!.resolve('a')
    await settle()
    void owner.start(later, { phase: 'asked', keepsOpened: true })
    answers[1]!.reject('refused')
    await settle()
    expect(owner.state).toEqual({ phase: 'live' })
    void owner.start(later, { phase: 'asked', keepsOpened: true })
    answers[2]!.resolve('c')
    await settle()
    expect(log).toEqual(['asked', 'has a', 'live', 'stop a', 'has c', 'live'])
  })

  it('what ends while something else is being chosen is gone, and the choice still counts', async () => {
    const { owner, log, answers, later, made, settle } = setUp()
    await owner.start(() => made('a'))
    void owner.start(later, { phase: 'asked', keepsOpened: true })
    owner.lost(null)
    expect(log.slice(-3)).toEqual(['stop a', 'gone', 'asked'])
    answers[0]!.resolve('b')
    await settle()
    expect(log.slice(-2)).toEqual(['has b', 'live'])
    void owner.start(later, { phase: 'asked', keepsOpened: true })
    owner.lost('broken')
    answers[1]!.reject('refused')
    await settle()
    expect(log.slice(-3)).toEqual(['asked', 'gone', 'refused'])
  })

  it('takes no notice of the end of what it has stopped itself: it is opening it anew', async () => {
    const { owner, log, answers, later, made, settle, timers } = setUp()
    await owner.start(() => made('a'))
    void owner.start(later)
    owner.lost('unplugged')
    answers[0]!.resolve('b')
    await settle()
    expect(log).toEqual(['starting', 'has a', 'live', 'starting', 'stop a', 'has b', 'live'])
    expect(timers.size).toBe(0)
    owner.lost('unplugged')
    expect(log.slice(-3)).toEqual(['stop b', 'gone', 'unplugged'])
    expect(timers.size).toBe(1)
    owner.dispose()
    owner.lost('unplugged')
    expect(timers.size).toBe(0)
  })

  it('forgets its timer when it is started, stopped or let go', async () => {
    for (const next of ['start', 'stop', 'dispose'] as const) {
      const { owner, timers, made } = setUp()
      await owner.start(() => Promise.reject(new Error('busy')))
      expect(timers.size).toBe(1)
      if (next === 'start') await owner.start(() => made('a'))
      else if (next === 'stop') owner.stop('off')
      else owner.dispose()
      expect(timers.size).toBe(0)
    }
  })

  it('is never tried again by itself without a clock', async () => {
    const { owner, log, made } = setUp(false)
    await owner.start(() => Promise.reject(new Error('broken')))
    expect(log).toEqual(['starting', 'gone', 'broken'])
    await owner.start(() => made('a'))
    expect(owner.opened?.name).toBe('a')
  })

  it('is stopped, and has failed, where what was opened cannot be handed on', async () => {
    const states: string[] = []
    const stopped: string[] = []
    const owner = new LiveOwner<Opened>(
      {
        onState: (state) => states.push(statusOf(state)),
        onOpened: () => {
          throw new TypeError('the track is muted for good')
        },
        onGone: () => stopped.push('gone'),
        failureOf: () => 'busy',
      },
      null,
    )
    const state = await owner.start(() => ({ stop: () => stopped.push('stop') }))
    expect(state).toEqual({ phase: 'failed', reason: 'broken', detail: 'the track is muted for good' })
    expect([states, stopped, owner.opened]).toEqual([['starting', 'broken'], ['stop', 'gone'], null])
  })

  it('an opening that throws at once is a failure like any other', async () => {
    const { owner } = setUp()
    const state = await owner.start(() => {
      throw new Error('broken')
    })
    expect(state).toEqual({ phase: 'failed', reason: 'broken', detail: 'broken' })
  })
})

describe('what an error of the browser means', () => {
  // DOMException names: W3C Media Capture and Streams §10.2.
  it.each([
    ['NotAllowedError', 'refused'],
    ['SecurityError', 'refused'],
    ['NotReadableError', 'busy'],
    ['AbortError', 'busy'],
    ['NotFoundError', 'missing'],
    ['OverconstrainedError', 'missing'],
    ['TypeError', 'broken'],
  ] as const)('%s: %s', (name, failure) => {
    expect(failureOf(new DOMException('no', name), { phase: 'starting' })).toBe(failure)
  })

  it('one that was unplugged is still unplugged when it is not found', () => {
    const unplugged = { phase: 'failed', reason: 'unplugged', detail: null } as const
    expect(failureOf(new DOMException('no', 'NotFoundError'), unplugged)).toBe('unplugged')
    expect(failureOf('no error at all', unplugged)).toBe('broken')
  })

  it('a failure is told from a rest', () => {
    expect(['off', 'asked', 'starting', 'live', 'paused', 'ended'].filter((status) => isFailure(status as 'off'))).toEqual([])
    expect(isFailure('busy')).toBe(true)
  })
})
