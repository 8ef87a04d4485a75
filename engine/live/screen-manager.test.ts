import { describe, expect, it } from 'vitest'
import { testShow } from '../../tests/support/shows.ts'
import { addInput, removeInput } from '../../core/show/edits.ts'
import type { ScreenInput, Show } from '../../core/show/show.ts'
import { statusOf } from './live-state.ts'
import { ScreenManager } from './screen-manager.ts'

const shared: ScreenInput = { id: 'desk', kind: 'screen', name: 'Desk', source: { type: 'shared', label: '' }, frameRate: 30, treatment: [] }
const standin: ScreenInput = { id: 'scale', kind: 'screen', name: 'Scale', source: { type: 'standin' }, frameRate: 30, treatment: [] }

function page() {
  const log: string[] = []
  const asked: { wish: DisplayMediaStreamOptions; answer: (surface: string | Error) => void }[] = []
  const manager = new ScreenManager(
    {
      mediaDevices: {
        getDisplayMedia: (wish) =>
          new Promise((resolve, reject) => {
            const answer = (surface: string | Error) => {
              if (surface instanceof Error) return reject(surface)
              const trackOf = (name: string): object => ({
                label: `a ${surface}`,
                stop: () => log.push(`stop ${name}`),
                clone: () => trackOf(`copy of ${name}`),
                applyConstraints: async ({ frameRate }: { frameRate: { max: number } }) => void log.push(`${name} at ${frameRate.max}`),
                getSettings: () => ({ displaySurface: surface }),
                getCaptureHandle: () => (surface === 'browser' ? 'own' : null),
              })
              const track = trackOf(surface)
              resolve({ getVideoTracks: () => [track], getTracks: () => [track] } as unknown as MediaStream)
            }
            asked.push({ wish: wish ?? {}, answer })
          }),
      },
      openStandin: (frameRate) => ({
        port: {} as MessagePort,
        stop: () => log.push('stop stand-in'),
        setRate: (rate) => log.push(`stand-in at ${rate} after ${frameRate}`),
      }),
      streamOf: () => new ReadableStream(),
      isOwnHandle: (handle) => handle === 'own',
    },
    {
      onSupply: (inputId, { type }) => log.push(`${inputId} gets ${type}`),
      onGone: (inputId) => log.push(`${inputId} gone`),
      onState: (inputId, state) => log.push(`${inputId} ${statusOf(state)}`),
      onShared: (inputId, { label, surface, isOwnTab }) => log.push(`${inputId} shows ${label}, ${surface}${isOwnTab ? ', its own tab' : ''}`),
    },
  )
  return { manager, log, asked }
}

const withScreens = (...screens: ScreenInput[]): Show => screens.reduce<Show>((show, screen) => addInput(show, screen), testShow())

describe('screens', () => {
  it('a stand-in opens by itself, once; a shared one waits for a press and proposes a window', async () => {
    const { manager, log, asked } = page()
    const show = withScreens(shared, standin)
    manager.follow(show)
    manager.follow(show)
    expect(log).toEqual(['desk off', 'scale starting', 'scale gets port', 'scale live'])
    const sharing = manager.share('desk')
    expect(log.at(-1)).toBe('desk asked')
    expect(asked[0]!.wish).toMatchObject({ video: { displaySurface: 'window', width: { ideal: 3840 } }, audio: false, selfBrowserSurface: 'exclude' })
    asked[0]!.answer('window')
    expect(await sharing).toBe('live')
    expect(log.slice(-3)).toEqual(['desk shows a window, window', 'desk gets stream', 'desk live'])
  })

  it('the rate is asked for with the screen, and changed while it goes on', async () => {
    const { manager, log, asked } = page()
    manager.follow(withScreens({ ...shared, frameRate: 5 }, standin))
    const sharing = manager.share('desk')
    expect(asked[0]!.wish).toMatchObject({ video: { frameRate: { ideal: 5, max: 5 } } })
    asked[0]!.answer('window')
    await sharing
    log.length = 0
    const faster = withScreens({ ...shared, frameRate: 15 }, { ...standin, frameRate: 5 })
    manager.follow(faster)
    manager.follow(faster)
    expect(log).toEqual(['window at 15', 'stand-in at 5 after 30'])
  })

  it('a refusal says so; choosing anew keeps what is shared until something else is chosen', async () => {
    const { manager, log, asked } = page()
    manager.follow(withScreens(shared))
    const refused = manager.share('desk')
    asked[0]!.answer(new DOMException('no', 'NotAllowedError'))
    expect(await refused).toBe('refused')
    const first = manager.share('desk')
    asked[1]!.answer('window')
    await first
    const again = manager.share('desk')
    asked[2]!.answer(new DOMException('no', 'NotAllowedError'))
    expect(await again).toBe('live')
    expect(log).not.toContain('stop window')
    const other = manager.share('desk')
    asked[3]!.answer('monitor')
    expect(await other).toBe('live')
    // Never without a picture in between.
    expect(log.slice(-4)).toEqual(['stop window', 'desk shows a monitor, monitor', 'desk gets stream', 'desk live'])
  })

  it('ended by the browser: told, and shared again by a press; an input that is removed stops its sharing', async () => {
    const { manager, log, asked } = page()
    const show = withScreens(shared)
    manager.follow(show)
    const sharing = manager.share('desk')
    asked[0]!.answer('browser')
    await sharing
    expect(log).toContain('desk shows a browser, browser, its own tab')
    manager.ended('desk')
    expect(log.at(-1)).toBe('desk ended')
    const again = manager.share('desk')
    asked[1]!.answer('window')
    await again
    manager.follow(removeInput(show, 'desk'))
    expect(log.slice(-2)).toEqual(['stop window', 'desk gone'])
    manager.ended('desk')
    expect(log.at(-1)).toBe('desk gone')
  })

  it('a window that closes while another is being chosen does not take the choice along', async () => {
    const { manager, log, asked } = page()
    manager.follow(withScreens(shared))
    const first = manager.share('desk')
    asked[0]!.answer('window')
    await first
    const other = manager.share('desk')
    manager.ended('desk')
    expect(log.at(-1)).toBe('desk asked')
    asked[1]!.answer('monitor')
    expect(await other).toBe('live')
    expect(log.slice(-3)).toEqual(['desk shows a monitor, monitor', 'desk gets stream', 'desk live'])
  })

  it('an answer for an input that has gone meanwhile, or that was asked for twice, is let go', async () => {
    const { manager, log, asked } = page()
    const show = withScreens(shared)
    manager.follow(show)
    const first = manager.share('desk')
    const second = manager.share('desk')
    asked[1]!.answer('window')
    await second
    asked[0]!.answer('monitor')
    await first
    expect(log.filter((line) => line === 'desk gets stream')).toHaveLength(1)
    expect(log).toContain('stop monitor')
    const late = manager.share('desk')
    manager.follow(removeInput(show, 'desk'))
    asked[2]!.answer('browser')
    await late
    expect(log).toContain('stop browser')
  })

  it('one that is shared in the press that makes it is known a moment later', async () => {
    const { manager, log, asked } = page()
    const sharing = manager.share('desk')
    manager.follow(withScreens(shared))
    asked[0]!.answer('window')
    expect(await sharing).toBe('live')
    expect(log).toEqual(['desk asked', 'desk shows a window, window', 'desk gets stream', 'desk live'])
  })

  it('one that is chosen before its input is there waits for it', async () => {
    const { manager, log, asked } = page()
    const sharing = manager.share('desk')
    asked[0]!.answer('window')
    await sharing
    manager.follow(testShow())
    expect(log).toEqual(['desk asked', 'desk live'])
    manager.follow(withScreens(shared))
    expect(log.slice(2)).toEqual(['desk shows a window, window', 'desk gets stream'])
    manager.follow(withScreens(shared))
    expect(log).toHaveLength(4)
  })

  it('after the engine has started anew both go on, and a rate is that of what is read', async () => {
    const { manager, log, asked } = page()
    manager.follow(withScreens(shared, standin))
    const sharing = manager.share('desk')
    asked[0]!.answer('window')
    await sharing
    log.length = 0
    manager.restart()
    expect(log.toSorted()).toEqual(['desk gets stream', 'scale gets port', 'stop stand-in', 'stop window'])
    log.length = 0
    manager.follow(withScreens({ ...shared, frameRate: 5 }, standin))
    expect(log).toEqual(['copy of window at 5'])
    manager.stop('desk')
    expect(log.slice(1)).toEqual(['stop copy of window', 'desk gone', 'desk off'])
  })
})
