import { describe, expect, it } from 'vitest'
import { constraintsFor, controlsOf } from './camera-controls.ts'

const capabilities = {
  width: { min: 1, max: 1920 },
  exposureMode: ['continuous', 'manual'],
  exposureTime: { min: 3, max: 2047, step: 1 },
  focusMode: ['manual'],
  focusDistance: { min: 0, max: 255, step: 5 },
  zoom: { min: 100, max: 400, step: 1 },
  pan: { min: 5, max: 5 },
}

describe('a camera’s own controls', () => {
  it('are those the driver offers, and no others', () => {
    const { modes, ranges } = controlsOf(capabilities, { exposureMode: 'manual', exposureTime: 156, zoom: 120 })
    expect(modes).toEqual([{ name: 'exposureMode', options: ['continuous', 'manual'], value: 'manual' }])
    // A mode with one choice and a range without room are nothing to set.
    expect(ranges.map(({ name, value, mode }) => [name, value, mode])).toEqual([
      ['exposureTime', 156, 'exposureMode'],
      ['focusDistance', 0, null],
      ['zoom', 120, null],
    ])
    expect(controlsOf({}, {})).toEqual({ modes: [], ranges: [], refused: [] })
  })

  it('are held with modes first, within what the camera offers now', () => {
    const offered = controlsOf(capabilities, {})
    const held = { zoom: 900, exposureTime: 40, exposureMode: 'manual', tilt: 3, focusMode: 'continuous' }
    expect(constraintsFor(held, offered).advanced).toEqual([{ exposureMode: 'manual' }, { exposureTime: 40 }, { zoom: 400 }])
  })
})
