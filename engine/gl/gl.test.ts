// What can be known about shaders and surfaces without a graphics card: a context that notes what it is asked for.
import { describe, expect, it, vi } from 'vitest'
import type { Lut } from '../../core/lut/lut.ts'
import type { Picture } from '../../core/picture/picture.ts'
import type { TreatedNode } from '../../core/plan/frame-plan.ts'
import { plainContext, prepareChain } from '../../core/steps/chain.ts'
import { steps, type AnyStep, type StepCall } from '../../core/steps/index.ts'
import { seededRandom } from '../../core/random/seeded.ts'
import { randomCall } from '../../tests/support/random-steps.ts'
import { GlDevice, GraphicsError } from './device.ts'
import { GlTreatments } from './gl-treatments.ts'
import { LutBook, TABLE_COLUMNS } from './lut-book.ts'
import { FIRST_STEP_VALUE, placed, PointPass } from './point-pass.ts'

interface Notes {
  readonly sources: string[]
  textures: number
  frames: number
  compiles: boolean
  isLost: boolean
}

/** A WebGL2 context that does nothing but count; whatever it is asked for exists. */
function notingContext(): { gl: WebGL2RenderingContext; notes: Notes } {
  const notes: Notes = { sources: [], textures: 0, frames: 0, compiles: true, isLost: false }
  const known: Record<string, unknown> = {
    canvas: {},
    getExtension: () => ({}),
    isContextLost: () => notes.isLost,
    shaderSource: (_shader: unknown, source: string) => notes.sources.push(source),
    getShaderParameter: () => notes.compiles,
    getProgramParameter: () => true,
    getShaderInfoLog: () => 'ERROR: 0:7: no such thing',
    createTexture: () => {
      notes.textures += 1
      return {}
    },
    deleteTexture: () => (notes.textures -= 1),
    createFramebuffer: () => {
      notes.frames += 1
      return {}
    },
    deleteFramebuffer: (frame: unknown) => (notes.frames -= frame === null ? 0 : 1),
  }
  const gl = new Proxy(known, { get: (target, name: string) => (name in target ? target[name] : /^[A-Z0-9_]+$/.test(name) ? 1 : () => ({})) })
  return { gl: gl as unknown as WebGL2RenderingContext, notes }
}

const lut: Lut = { kind: '3d', size: 2, domainMin: [0, 0, 0], domainMax: [1, 1, 1], data: new Float32Array(24) }

describe('placed', () => {
  it('gives a step its name, its numbers and its table', () => {
    const text = placed('vec4 STEP(vec4 pixel) { return STEP_help(VALUE[0] + VALUE[3]) * TABLE(int(VALUE[1])).r; }', 'step2', 9, 3)
    expect(text).toContain('vec4 step2(vec4 pixel) { return step2_help(VALUE[9] + VALUE[12]) * tableAt3(int(VALUE[10])).r; }')
    expect(text).toContain('texelFetch(t3,')
    expect(placed('float STEP() { return 1.0; }', 'x', 0, -1)).toBe('float x() { return 1.0; }')
  })
})

describe('every colour function', () => {
  const isPointed = (step: AnyStep) =>
    [1, 2, 3, 4, 5, 6].some((seed) => prepareChain([randomCall(step, seededRandom(seed))], plainContext(96, 64)).runs.some((run) => run.shaders.length > 0))
  const pointed = steps.filter(isPointed)

  it('is that of a step of one pixel', () => {
    expect(pointed.map((step) => step.kind)).toEqual(['balance', 'tone', 'colour', 'chromaKey', 'colourKey', 'lumaKey', 'spill', 'look'])
  })

  it.each(pointed.map((step) => [step.kind, step] as const))('%s brings as many numbers as its text reads, and a table if it reads one', (_kind, step) => {
    const random = seededRandom(31)
    for (let i = 0; i < 12; i += 1) {
      const { runs } = prepareChain([randomCall(step, random)], plainContext(96, 64))
      for (const { source, values, lut: table } of runs.flatMap((run) => run.shaders)) {
        const read = [...source.matchAll(/VALUE\[(\d+)\]/g)].map((match) => Number(match[1]))
        expect(Math.max(...read) + 1).toBe(values.length)
        expect(values.every(Number.isFinite)).toBe(true)
        expect(source.includes('TABLE(')).toBe(table !== null)
      }
    }
  })
})

describe('PointPass', () => {
  const chainOf = (calls: readonly StepCall[]) => prepareChain(calls, plainContext(96, 64)).runs[0]!
  const random = seededRandom(5)
  const calls = steps.filter((step) => ['balance', 'tone', 'colour', 'look'].includes(step.kind)).map((step) => randomCall(step, random))

  it('fuses consecutive functions into one shader, in their order', () => {
    const { gl, notes } = notingContext()
    const device = new GlDevice(gl)
    const { shaders, keep } = chainOf(calls)
    expect(shaders.length).toBe(4)
    void new PointPass(device, new LutBook(device), shaders, keep, 'planes', 'premultiplied', [219, 16, 224, 0.2126, 0.0722])
    const fragment = notes.sources.at(-1)!
    const order = [...fragment.matchAll(/pixel = step(\d)\(pixel\);/g)].map((match) => Number(match[1]))
    expect(order).toEqual([0, 1, 2, 3])
    expect(notes.sources).toHaveLength(2)
    const size = FIRST_STEP_VALUE + shaders.reduce((sum, shader) => sum + shader.values.length, 0)
    expect(fragment).toContain(`uniform float VALUE[${size}];`)
    expect(fragment).toContain('premultiplied(pixel)')
  })

  it('is compiled once for any values of the same steps', () => {
    const { gl, notes } = notingContext()
    const device = new GlDevice(gl)
    const luts = new LutBook(device)
    const { keep } = chainOf(calls)
    for (let i = 0; i < 4; i += 1) {
      const random = seededRandom(40 + i)
      const { shaders } = chainOf([
        randomCall(
          steps.find((step) => step.kind === 'colour')!,
          random,
        ),
      ])
      void new PointPass(device, luts, shaders, keep, 'straight', 'straight', [1, 0, 1, 0, 0])
    }
    expect(notes.sources).toHaveLength(2)
  })
})

describe('GlDevice', () => {
  it('frees what it made, once', () => {
    const { gl, notes } = notingContext()
    const device = new GlDevice(gl)
    const half = device.surface('half', 8, 8)
    const plane = device.surface('byteOne', 8, 8)
    expect([notes.textures, notes.frames, device.surfaceCount]).toEqual([2, 1, 2])
    device.free(half)
    device.free(half)
    expect([notes.textures, notes.frames]).toEqual([1, 0])
    device.dispose()
    device.free(plane)
    expect([notes.textures, device.surfaceCount]).toEqual([0, 0])
  })

  it('shows the text with numbered lines when a shader does not compile', () => {
    const { gl, notes } = notingContext()
    const device = new GlDevice(gl)
    notes.compiles = false
    expect(() => device.pass('void main() { nonsense }', 1, 0)).toThrow(/a shader does not compile: ERROR: 0:7: no such thing\n1: #version 300 es/)
  })

  it('lets nothing be read from a lost graphics card', () => {
    const { gl, notes } = notingContext()
    const device = new GlDevice(gl)
    const bytes = device.surface('bytes', 2, 2)
    notes.isLost = true
    expect(() => device.read(bytes, new Uint8Array(16))).toThrow(GraphicsError)
    expect(device.isLost).toBe(true)
  })

  it('refuses a graphics card without floating-point targets', () => {
    const { gl } = notingContext()
    Object.defineProperty(gl, 'getExtension', { value: () => null })
    const poor = { ...{ getExtension: () => null } } as unknown as WebGL2RenderingContext
    expect(() => new GlDevice(poor)).toThrow(/floating-point/)
    expect(gl).toBeDefined()
  })
})

describe('LutBook', () => {
  it('brings a table to the graphics card once, in rows, and lets go of it', () => {
    const { gl, notes } = notingContext()
    const device = new GlDevice(gl)
    const book = new LutBook(device)
    const surface = book.surface(lut)
    expect(book.surface(lut)).toBe(surface)
    expect([surface.widthPx, surface.heightPx]).toEqual([TABLE_COLUMNS, 1])
    const large = book.surface({ ...lut, size: 33, data: new Float32Array(33 ** 3 * 3) })
    expect(large.heightPx).toBe(Math.ceil(33 ** 3 / TABLE_COLUMNS))
    book.dispose()
    expect(notes.textures).toBe(0)
  })

  it('keeps the newest few', () => {
    const { gl, notes } = notingContext()
    const device = new GlDevice(gl)
    const book = new LutBook(device)
    for (let i = 0; i < 9; i += 1) book.surface({ ...lut })
    book.trim()
    expect(notes.textures).toBe(6)
  })
})

describe('GlTreatments', () => {
  const picture: Picture = { format: 'rgba', widthPx: 8, heightPx: 8, data: new Uint8Array(8 * 8 * 4) }
  const nodeOf = (i: number): TreatedNode => {
    const steps: readonly StepCall[] = []
    return { kind: 'treated', key: `t${i} /1`, treatedKey: `t${i}`, sourceId: `input:${i}`, steps, mipLevel: 1, isOpaque: true, widthPx: 4, heightPx: 4 }
  }
  const frame = (version: number) => ({ picture, version, isLive: true })

  it.each([12, 13, 17, 40, 90])('makes no texture anew for %i live sources', (count) => {
    const { gl, notes } = notingContext()
    const treatments = new GlTreatments(new GlDevice(gl))
    const pass = (version: number) => Array.from({ length: count }, (_, i) => treatments.treated(nodeOf(i), frame(version)).texture)
    const first = pass(1)
    const { textures } = notes
    const second = pass(2)
    expect(second.filter((texture, i) => texture !== first[i])).toEqual([])
    expect(notes.textures).toBe(textures)
    treatments.dispose()
  })

  it('frees the textures of what nobody asked for in ten seconds', () => {
    vi.useFakeTimers({ toFake: ['performance'] })
    try {
      vi.advanceTimersByTime(1000)
      const { gl, notes } = notingContext()
      const treatments = new GlTreatments(new GlDevice(gl))
      for (let i = 0; i < 30; i += 1) treatments.treated(nodeOf(i), frame(1))
      const { textures } = notes
      vi.advanceTimersByTime(11_000)
      treatments.treated(nodeOf(99), frame(1))
      expect(notes.textures).toBeLessThan(textures / 10)
      treatments.dispose()
    } finally {
      vi.useRealTimers()
    }
  })
})
