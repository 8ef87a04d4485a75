// Drawing as messages to the programme: strokes grow, fade, go and come back.
import { describe, expect, it } from 'vitest'
import type { Stroke } from '../drawing/stroke.ts'
import { FADE_MS } from '../drawing/surface.ts'
import { EMPTY_PROGRAMME, programmeAfter, settledProgramme, type Programme, type ProgrammeMessage } from './programme.ts'

const at = { showId: 'show', surface: 'scene:one' }
const stroke = (id: string, x = 0): Stroke => ({ id, tool: 'pen', colour: '#000000', width: 0.01, points: [x, 0, 0.5] })
const after = (messages: readonly (readonly [ProgrammeMessage, number])[], from: Programme = EMPTY_PROGRAMME) =>
  messages.reduce((programme, [message, nowMs]) => programmeAfter(programme, message, nowMs), from)
const idsIn = (programme: Programme) => programme.drawings.map(({ surface, strokes }) => [surface, strokes.map((one) => one.stroke.id).join()])

describe('drawing', () => {
  it('draws on at a stroke, keeps its place in the order, and finishes it', () => {
    const drawn = after([
      [{ type: 'drawStroke', ...at, stroke: stroke('a'), isOpen: false, staysMs: null }, 0],
      [{ type: 'drawStroke', ...at, stroke: stroke('b'), isOpen: true, staysMs: null }, 1],
      [{ type: 'drawStroke', ...at, stroke: stroke('c'), isOpen: false, staysMs: 500 }, 2],
      [{ type: 'drawStroke', ...at, stroke: stroke('b', 0.5), isOpen: false, staysMs: null }, 3],
    ])
    expect(drawn.drawings[0]!.strokes).toEqual([
      { stroke: stroke('a'), isOpen: false, fadesFromMs: null },
      { stroke: stroke('b', 0.5), isOpen: false, fadesFromMs: null },
      { stroke: stroke('c'), isOpen: false, fadesFromMs: 502 },
    ])
  })

  it('does not begin to fade while the hand is at it', () => {
    const open = after([[{ type: 'drawStroke', ...at, stroke: stroke('a'), isOpen: true, staysMs: 10 }, 0]])
    expect(settledProgramme(open, 1e9)).toBe(open)
  })

  it('lets go of a stroke at the very end of its fade, and of a surface with its last', () => {
    const drawn = after([
      [{ type: 'drawStroke', ...at, stroke: stroke('a'), isOpen: false, staysMs: 500 }, 100],
      [{ type: 'drawStroke', ...at, surface: 'page:d:p', stroke: stroke('b'), isOpen: false, staysMs: null }, 100],
    ])
    expect(settledProgramme(drawn, 600 + FADE_MS - 0.1)).toBe(drawn)
    expect(idsIn(settledProgramme(drawn, 600 + FADE_MS))).toEqual([['page:d:p', 'b']])
  })

  it('rubs strokes out; what is not there changes nothing', () => {
    const drawn = after([[{ type: 'setStrokes', ...at, strokes: ['a', 'b', 'c'].map((id) => ({ stroke: stroke(id), staysMs: null })) }, 0]])
    expect(idsIn(programmeAfter(drawn, { type: 'eraseStrokes', ...at, ids: ['b'] }, 1))).toEqual([['scene:one', 'a,c']])
    expect(programmeAfter(drawn, { type: 'eraseStrokes', ...at, ids: ['x'] }, 1)).toBe(drawn)
    expect(programmeAfter(drawn, { type: 'eraseStrokes', ...at, showId: 'other', ids: ['a'] }, 1)).toBe(drawn)
    expect(programmeAfter(drawn, { type: 'eraseStrokes', ...at, ids: ['a', 'b', 'c'] }, 1).drawings).toEqual([])
  })

  it('goes on fading when all of a surface is set again', () => {
    const fading = { type: 'drawStroke', ...at, stroke: stroke('a'), isOpen: false, staysMs: 500 } as const
    const again = {
      type: 'setStrokes',
      ...at,
      strokes: [
        { stroke: stroke('a'), staysMs: 500 },
        { stroke: stroke('b'), staysMs: 500 },
      ],
    } as const
    const drawn = after([
      [fading, 0],
      [again, 400],
    ])
    expect(drawn.drawings[0]!.strokes.map(({ fadesFromMs }) => fadesFromMs)).toEqual([500, 900])
  })

  it('stays when nothing is on air any more', () => {
    const drawn = after([[{ type: 'drawStroke', ...at, stroke: stroke('a'), isOpen: false, staysMs: null }, 0]])
    expect(programmeAfter(drawn, { type: 'clear' }, 1).drawings).toBe(drawn.drawings)
  })
})
