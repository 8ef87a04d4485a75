// Who may have the feed, by what each page is told and what reaches the studio.
import { beforeEach, describe, expect, it } from 'vitest'
import type { ToMeeting, ToStudio } from '../signal.ts'
import { SiteGate, type OpenSite } from './site-gate.ts'

const SITE = 'https://meet.example.org'
const OTHER = 'https://other.example.org'

describe('SiteGate', () => {
  let told: { documentId: string; message: ToMeeting }[]
  let sites: readonly OpenSite[]
  let heard: ToStudio[]
  let gate: SiteGate
  const make = (once: ConstructorParameters<typeof SiteGate>[2] = []) => {
    const made = new SiteGate({ send: (documentId, message) => told.push({ documentId, message }), announce: () => undefined }, (next) => (sites = next), once)
    made.transport.onMessage = (message) => heard.push(message)
    return made
  }
  beforeEach(() => {
    told = []
    sites = []
    heard = []
    gate = make()
  })

  const feed = (isOn: boolean) => gate.transport.send({ type: 'feed', isOn, isAgain: false })
  const want = (documentId: string, origin = SITE, session = 's') => gate.receive(documentId, origin, { type: 'want', session })
  const isTheirs = (documentId: string) => told.findLast((each) => each.documentId === documentId && each.message.type === 'studio')?.message

  it('tells a page nothing but that there is a studio until the presenter has said yes', () => {
    feed(true)
    gate.receive('a', SITE, { type: 'open' })
    expect(sites).toEqual([{ documentId: 'a', origin: SITE, state: 'asking' }])
    expect(isTheirs('a')).toEqual({ type: 'studio', isOpen: true, isFeedOn: false })
    want('a')
    expect(heard).toEqual([])
    gate.decideOnce('a', true)
    expect(isTheirs('a')).toEqual({ type: 'studio', isOpen: true, isFeedOn: true })
    want('a')
    expect(heard).toMatchObject([{ type: 'meeting', origin: SITE, message: { type: 'want', session: 'a s' } }])
  })

  it('keeps "this time" to the page it was said of', () => {
    feed(true)
    for (const documentId of ['a', 'b']) gate.receive(documentId, SITE, { type: 'open' })
    gate.decideOnce('a', true)
    expect(sites.map(({ state }) => state)).toEqual(['allowed', 'asking'])
    gate.gone('a')
    gate.receive('a', SITE, { type: 'open' })
    expect(sites.find(({ documentId }) => documentId === 'a')!.state).toBe('asking')
  })

  it('takes a yes from one page for no other origin, whatever the page says of itself', () => {
    gate.setDecisions(new Map([[SITE, 'always']]))
    feed(true)
    gate.receive('a', SITE, { type: 'open' })
    gate.receive('b', OTHER, { type: 'open' })
    want('b', OTHER)
    // The document of another origin, by its id.
    want('a', OTHER)
    gate.receive('b', OTHER, { type: 'description', session: 'a s', description: { type: 'answer', sdp: 'v=0' } })
    expect(heard).toEqual([])
  })

  it('ends what runs at once when the right is taken back, and tells the page', () => {
    gate.setDecisions(new Map([[SITE, 'always']]))
    feed(true)
    gate.receive('a', SITE, { type: 'open' })
    want('a')
    heard.length = 0
    gate.setDecisions(new Map())
    expect(heard).toEqual([{ type: 'meeting', origin: SITE, message: { type: 'bye', session: 'a s' } }])
    expect(told).toContainEqual({ documentId: 'a', message: { type: 'bye', session: 's' } })
    expect(isTheirs('a')).toEqual({ type: 'studio', isOpen: true, isFeedOn: false })
    expect(sites[0]!.state).toBe('asking')
  })

  it('lets "never" stand over what was allowed once', () => {
    gate.receive('a', SITE, { type: 'open' })
    gate.decideOnce('a', true)
    gate.setDecisions(new Map([[SITE, 'never']]))
    expect(sites[0]!.state).toBe('refused')
  })

  it('hands the host’s answers to the page they are for', () => {
    gate.setDecisions(new Map([[SITE, 'always']]))
    feed(true)
    gate.receive('a', SITE, { type: 'open' })
    want('a')
    gate.transport.send({ type: 'description', session: 'a s', description: { type: 'offer', sdp: 'v=0' } })
    expect(told.at(-1)).toEqual({ documentId: 'a', message: { type: 'description', session: 's', description: { type: 'offer', sdp: 'v=0' } } })
  })

  it('has room for four tracks a page, and for four questions of one site', () => {
    gate.setDecisions(new Map([[SITE, 'always']]))
    feed(true)
    gate.receive('a', SITE, { type: 'open' })
    for (let i = 0; i < 10; i += 1) want('a', SITE, `s${i}`)
    expect(heard).toHaveLength(4)
    for (let i = 0; i < 100; i += 1) gate.receive(`page ${i}`, OTHER, { type: 'open' })
    expect(sites.filter(({ origin }) => origin === OTHER)).toHaveLength(4)
  })

  it('lets no page that was refused, or that floods, keep another out', () => {
    gate.setDecisions(new Map([[SITE, 'always']]))
    feed(true)
    for (let i = 0; i < 1000; i += 1) {
      const origin = `https://flood-${i % 300}.example.org`
      gate.receive(`flood ${i}`, origin, { type: 'open' })
      if (i % 3 === 0) gate.decideOnce(`flood ${i}`, false)
    }
    expect(sites.filter(({ state }) => state === 'asking').length).toBeLessThanOrEqual(60)
    // One that may always, at once; with a picture.
    gate.receive('a', SITE, { type: 'open' })
    expect(isTheirs('a')).toMatchObject({ isFeedOn: true })
    want('a')
    expect(heard).toMatchObject([{ message: { type: 'want', session: 'a s' } }])
  })

  it('asks for a page that had to wait as soon as there is room, and withdraws the question of one that has gone', () => {
    for (let i = 0; i < 60; i += 1) gate.receive(`page ${i}`, `https://site-${i}.example.org`, { type: 'open' })
    gate.receive('late', OTHER, { type: 'open' })
    expect(sites.some(({ documentId }) => documentId === 'late')).toBe(false)
    gate.gone('page 7')
    expect(sites.some(({ documentId }) => documentId === 'late')).toBe(true)
    expect(sites.some(({ documentId }) => documentId === 'page 7')).toBe(false)
    told.length = 0
    gate.findGone()
    expect(told).toHaveLength(60)
    expect(told.every(({ message }) => message.type === 'studio' && !message.isFeedOn)).toBe(true)
  })

  it('asks nothing for a page of an opaque origin, whatever was decided', () => {
    gate.setDecisions(new Map([['null', 'always']]))
    feed(true)
    gate.receive('a', 'null', { type: 'open' })
    gate.receive('b', 'file://', { type: 'open' })
    want('a', 'null')
    expect([sites, told, heard]).toEqual([[], [], []])
  })

  it('tells size and rate of the show to pages that may have the feed, and to no other', () => {
    const format = { widthPx: 1920, heightPx: 1080, frameRate: 60 }
    gate.setDecisions(new Map([[SITE, 'always']]))
    gate.transport.send({ type: 'feed', isOn: true, isAgain: false, format })
    gate.receive('a', SITE, { type: 'open' })
    gate.receive('b', OTHER, { type: 'open' })
    expect(isTheirs('a')).toEqual({ type: 'studio', isOpen: true, isFeedOn: true, format })
    expect(isTheirs('b')).toEqual({ type: 'studio', isOpen: true, isFeedOn: false })
  })

  it('ignores what is no message', () => {
    for (const raw of [null, 'open', { type: 'open', extra: 1 }, { type: 'want', session: 'x'.repeat(61) }, { type: 'feed', isOn: true }])
      gate.receive('a', SITE, raw)
    expect(heard).toEqual([])
    expect(sites.length).toBeLessThanOrEqual(1)
  })

  it('goes on with what was said once after the studio’s page was loaded anew', () => {
    gate.receive('a', SITE, { type: 'open' })
    gate.decideOnce('a', true)
    const next = make(gate.decidedOnce)
    next.receive('a', SITE, { type: 'open' })
    expect(sites).toEqual([{ documentId: 'a', origin: SITE, state: 'allowed' }])
  })
})
