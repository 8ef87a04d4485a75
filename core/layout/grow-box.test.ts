import { describe, expect, it } from 'vitest'
import { grownBox } from './grow-box.ts'

const canvas = { heightPx: 720 }
const box = (y: number, height: number) => ({ x: 64, y, width: 560, height, angleDeg: 0, fit: 'fit' as const })

describe('a box that grows with its text', () => {
  it('grows upwards from the bottom and downwards from the top', () => {
    expect(grownBox(box(556, 116), 200, 116, canvas)).toMatchObject({ y: 472, height: 200 })
    expect(grownBox(box(40, 116), 200, 116, canvas)).toMatchObject({ y: 40, height: 200 })
  })

  it('goes back to where it was, and not below', () => {
    const grown = grownBox(box(556, 116), 300, 116, canvas)
    expect(grownBox(grown, 90, 116, canvas)).toMatchObject({ height: 116 })
    expect(grownBox(box(556, 116), 90, 116, canvas)).toEqual(box(556, 116))
  })

  it('stays on the canvas, and takes no more than nine tenths of it', () => {
    expect(grownBox(box(300, 200), 5000, 100, canvas)).toMatchObject({ height: 648, y: 0 })
    expect(grownBox(box(600, 100), 640, 100, canvas)).toMatchObject({ y: 60, height: 640 })
    // One that was placed over the edge by hand is left there.
    expect(grownBox(box(680, 100), 200, 100, canvas)).toMatchObject({ y: 580 })
  })
})
