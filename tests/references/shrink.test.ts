// Pictures drawn smaller against general tools: the area scaler of FFmpeg (libswscale, flags=area) and Lanczos of libvips (by sharp 0.35).
import { execFileSync } from 'node:child_process'
import sharp from 'sharp'
import { beforeAll, describe, expect, it } from 'vitest'
import { plainCoverage } from '../../core/composite/coverage.ts'
import { rotation, followedBy, scaling, translation } from '../../core/composite/affine.ts'
import type { Affine } from '../../core/composite/affine.ts'
import type { FramePlan } from '../../core/plan/frame-plan.ts'
import { PlanBuilder } from '../../core/plan/plan-builder.ts'
import { PICTURE } from '../../core/stage/plan-frame.ts'
import { renderReference } from '../../core/render/render-reference.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import { CpuExecutor } from '../../engine/cpu/cpu-executor.ts'
import type { Heap } from '../../engine/cpu/heap.ts'
import { Treatments } from '../../engine/cpu/treatments.ts'
import { nodeHeap } from '../../server/cli/node-engine.ts'
import { differenceOf } from '../support/pictures.ts'

let heap: Heap
beforeAll(async () => {
  heap = await nodeHeap()
})

/** White paper with black lines of one pixel: upright every 7 pixels on the left half, level every 5 on the right one. */
function linedPage(widthPx: number, heightPx: number): RgbaPicture {
  const data = new Uint8Array(widthPx * heightPx * 4).fill(255)
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      const isLine = x < widthPx / 2 ? x % 7 === 3 : y % 5 === 2
      if (isLine) data.fill(0, (y * widthPx + x) * 4, (y * widthPx + x) * 4 + 3)
    }
  }
  return { format: 'rgba', widthPx, heightPx, data }
}

/** A picture with some of everything: soft and hard, of many colours. */
function variedPage(widthPx: number, heightPx: number): RgbaPicture {
  const data = new Uint8Array(widthPx * heightPx * 4)
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      const at = (y * widthPx + x) * 4
      data[at] = Math.round(127 + 127 * Math.sin(x / 3 + y / 17))
      data[at + 1] = (x * 7) % 256
      data[at + 2] = (x ^ y) & 16 ? 230 : 25
      data[at + 3] = 255
    }
  }
  return { format: 'rgba', widthPx, heightPx, data }
}

function planOf({ widthPx, heightPx }: RgbaPicture, outWidth: number, outHeight: number, toNode: Affine): FramePlan {
  const builder = new PlanBuilder()
  const item = builder.item({
    layerId: 'page',
    paint: { kind: 'node', node: builder.treated('page', { widthPx, heightPx, isOpaque: true }, [], 0), toNode },
    coverage: plainCoverage({ kind: 'roundedRect', width: outWidth, height: outHeight, cornerRadius: 0 }),
    toCoverage: translation(0, 0),
    bounds: { left: 0, top: 0, right: outWidth, bottom: outHeight },
    opacity: 1,
    blend: 'normal',
  })
  const root = builder.stack('black', outWidth, outHeight, [item])
  return { nodes: builder.nodes, outputs: { [PICTURE]: root }, texts: [], outlines: [], missing: [], validUntilMs: Infinity }
}

/** What the studio makes of a page at another size: on the processor, with the page live and held. */
function drawn(page: RgbaPicture, outWidth: number, outHeight: number, toNode = scaling(page.widthPx / outWidth, page.heightPx / outHeight)): Uint8Array {
  const plan = planOf(page, outWidth, outHeight, toNode)
  const treatments = new Treatments(heap)
  const executor = new CpuExecutor(treatments)
  const render = (version: number, isLive: boolean) =>
    Uint8Array.from(executor.render(plan, new Map([['page', { picture: page, version, isLive }]])).data)
  const live = render(1, true)
  expect(differenceOf(live, render(1, false), 0).max, 'held as live').toBe(0)
  executor.dispose()
  treatments.dispose()
  const exact = renderReference(plan, new Map([['page', page]])).data.map((value) => value * 255)
  expect(differenceOf(live, exact, 2).shareAbove, 'the processor is the reference').toBe(0)
  return live
}

function ffmpegArea(page: RgbaPicture, outWidth: number, outHeight: number): Uint8Array {
  const size = (width: number, height: number) => `${width}x${height}`
  const scale = `scale=${outWidth}:${outHeight}:flags=area+accurate_rnd+full_chroma_inp+full_chroma_int`
  const raw = ['-f', 'rawvideo', '-pix_fmt', 'rgba']
  const args = ['-v', 'error', ...raw, '-s', size(page.widthPx, page.heightPx), '-i', '-', '-vf', scale, ...raw, '-']
  return new Uint8Array(execFileSync('ffmpeg', args, { input: page.data, maxBuffer: 1 << 28 }))
}

async function lanczos(page: RgbaPicture, outWidth: number, outHeight: number): Promise<Uint8Array> {
  const raw = { width: page.widthPx, height: page.heightPx, channels: 4 } as const
  return new Uint8Array(await sharp(page.data, { raw }).resize(outWidth, outHeight, { fit: 'fill', kernel: 'lanczos3' }).raw().toBuffer())
}

function meanDifference(one: ArrayLike<number>, other: ArrayLike<number>): number {
  let sum = 0
  for (let i = 0; i < one.length; i += 1) sum += Math.abs(one[i]! - other[i]!)
  return sum / one.length
}

// Width and height of the page, and of what it is drawn as: 1.5 is the size of a page beside the presenter.
const sizes = [
  [480, 270, 320, 180],
  [480, 270, 369, 208],
  [480, 270, 242, 136],
  [480, 200, 200, 160],
  [320, 360, 320, 66],
] as const

describe('pages drawn smaller', () => {
  it.each(sizes)('%i×%i as %i×%i are what FFmpeg’s area scaler makes of them', (width, height, outWidth, outHeight) => {
    for (const page of [linedPage(width, height), variedPage(width, height)]) {
      const ours = drawn(page, outWidth, outHeight)
      const theirs = ffmpegArea(page, outWidth, outHeight)
      // Its weights are rounded, too: to less than two codes on average.
      expect(meanDifference(ours, theirs)).toBeLessThan(2)
      expect(differenceOf(ours, theirs, 6).shareAbove).toBeLessThan(0.002)
    }
  })

  it.each(sizes)('%i×%i as %i×%i: every thin line keeps its weight', (width, height, outWidth, outHeight) => {
    const ours = drawn(linedPage(width, height), outWidth, outHeight)
    const row = Math.floor(outHeight / 2)
    const darkness = (x: number, y: number) => 255 - ours[(y * outWidth + x) * 4]!
    const weights: number[] = []
    for (let line = 3; line < width / 2 - 7; line += 7) {
      // Where the line lands, and a pixel around it; lines lie far enough apart for that.
      const from = Math.floor(((line - 1) * outWidth) / width)
      const to = Math.ceil(((line + 2) * outWidth) / width)
      let sum = 0
      for (let x = from; x < to; x += 1) sum += darkness(x, row)
      weights.push(sum)
    }
    const exact = (255 * outWidth) / width
    for (const weight of weights) expect(Math.abs(weight - exact)).toBeLessThanOrEqual(4)
  })

  it('lies closer to Lanczos than two samples do', async () => {
    for (const [width, height, outWidth, outHeight] of sizes.slice(0, 3)) {
      const page = variedPage(width, height)
      const good = await lanczos(page, outWidth, outHeight)
      const ours = drawn(page, outWidth, outHeight)
      const twoTaps = nearestFour(page, outWidth, outHeight)
      expect(meanDifference(ours, good)).toBeLessThan(meanDifference(twoTaps, good))
    }
  })

  it('a turned page keeps the weight of its lines, too', () => {
    const page = linedPage(900, 500)
    const toNode = followedBy(followedBy(rotation(12), scaling(1.5, 1.5)), translation(100, 20))
    const ours = drawn(page, 300, 200, toNode)
    let sum = 0
    for (let at = 0; at < ours.length; at += 4) sum += 255 - ours[at]!
    // One pixel in seven is a line.
    expect(sum / (300 * 200)).toBeGreaterThan((255 / 7) * 0.97)
    expect(sum / (300 * 200)).toBeLessThan((255 / 5) * 1.03)
  })
})

/** Linear interpolation between two pixels each way, by its definition. */
function nearestFour({ widthPx, heightPx, data }: RgbaPicture, outWidth: number, outHeight: number): Float64Array {
  const out = new Float64Array(outWidth * outHeight * 4)
  for (let y = 0; y < outHeight; y += 1) {
    for (let x = 0; x < outWidth; x += 1) {
      const atX = Math.min(widthPx - 1, Math.max(0, ((x + 0.5) * widthPx) / outWidth - 0.5))
      const atY = Math.min(heightPx - 1, Math.max(0, ((y + 0.5) * heightPx) / outHeight - 0.5))
      for (let channel = 0; channel < 4; channel += 1) {
        const code = (column: number, row: number) =>
          data[(Math.min(heightPx - 1, Math.floor(atY) + row) * widthPx + Math.min(widthPx - 1, Math.floor(atX) + column)) * 4 + channel]!
        const [fx, fy] = [atX % 1, atY % 1]
        const upper = code(0, 0) * (1 - fx) + code(1, 0) * fx
        const lower = code(0, 1) * (1 - fx) + code(1, 1) * fx
        out[(y * outWidth + x) * 4 + channel] = upper * (1 - fy) + lower * fy
      }
    }
  }
  return out
}
