// What the core computes by the formulas of web standards, against the browser's own work.
import { compose } from '../../core/blend/compose.ts'
import { blendModes } from '../../core/blend/index.ts'
import { ease, easingCss, namedEasings, type Easing } from '../../core/motion/easing.ts'
import { outlinePicture } from '../../core/outline/outline-picture.ts'
import { usualOutlines } from '../../core/outline/usual-outlines.ts'
import { gradientAt, type Gradient } from '../../core/paint/gradient.ts'
import { seededRandom } from '../../core/random/seeded.ts'
import { expect, test } from './studio.ts'

/** Pixels tried for each mode. */
const PIXELS = 600

test('blend modes are those of the browser’s canvas (W3C Compositing and Blending Level 1, globalCompositeOperation)', async ({ page }) => {
  const random = seededRandom(7)
  const codes = (hasAlpha: boolean) => Array.from({ length: PIXELS * 4 }, (_, i) => (i % 4 === 3 && !hasAlpha ? 255 : Math.floor(random() * 256)))
  for (const hasAlpha of [false, true]) {
    const backdrop = codes(hasAlpha)
    const source = codes(hasAlpha)
    for (const { name } of blendModes) {
      // Canvases hold premultiplied codes: what they hold is what is composed and what is compared.
      const [held, laid, seen] = await page.evaluate(
        ([below, above, operation, count]) => {
          const canvasOf = (pixels: readonly number[]) => {
            const pen = new OffscreenCanvas(count, 1).getContext('2d')!
            pen.putImageData(new ImageData(Uint8ClampedArray.from(pixels), count, 1), 0, 0)
            return pen
          }
          const read = (pen: OffscreenCanvasRenderingContext2D) => [...pen.getImageData(0, 0, count, 1).data]
          const [under, over] = [canvasOf(below), canvasOf(above)]
          const before = read(under)
          under.globalCompositeOperation = operation as GlobalCompositeOperation
          under.drawImage(over.canvas, 0, 0)
          return [before, read(over), read(under)] as const
        },
        [backdrop, source, name === 'normal' ? 'source-over' : name === 'plus-lighter' ? 'lighter' : name, PIXELS] as const,
      )
      const premultiplied = (straight: readonly number[]) =>
        Float64Array.from(straight, (code, i) => (i % 4 === 3 ? code / 255 : (code * straight[i - (i % 4) + 3]!) / 65025))
      const made = premultiplied(held)
      const over = premultiplied(laid)
      for (let at = 0; at < made.length; at += 4) compose(name, made, at, over, at, 1)
      const theirs = premultiplied(seen)
      const differences = made.map((value, i) => Math.abs(value - theirs[i]!) * 255)
      // The canvas stores eight bits and rounds in between: at most two codes for exclusion and difference, one for all else.
      const sorted = [...differences].sort((first, second) => first - second)
      const mean = sorted.reduce((sum, value) => sum + value, 0) / sorted.length
      expect(sorted[Math.floor(sorted.length * 0.99)]!, `${name}, ${hasAlpha ? 'with alpha' : 'opaque'}: 99 in 100`).toBeLessThanOrEqual(2.2)
      expect(mean, `${name}, ${hasAlpha ? 'with alpha' : 'opaque'}: mean`).toBeLessThanOrEqual(0.8)
    }
  }
})

test('easing is that of the browser’s animations (CSS Easing Functions Level 1, Web Animations getComputedTiming)', async ({ page }) => {
  const random = seededRandom(11)
  const curves: Easing[] = Array.from({ length: 20 }, () => ({
    kind: 'cubicBezier',
    x1: random(),
    y1: random() * 4 - 1.5,
    x2: random(),
    y2: random() * 4 - 1.5,
  }))
  const stairs = (['start', 'end', 'none', 'both'] as const).flatMap((position) => [2, 3, 7].map((count): Easing => ({ kind: 'steps', count, position })))
  const all = [...Object.values(namedEasings), ...curves, ...stairs]
  const moments = [0, 0.001, 0.05, 0.1, 0.24, 0.25, 0.26, 0.333, 0.5, 0.6, 0.75, 0.9, 0.999]
  const theirs = await page.evaluate(
    ([easings, times]) =>
      easings.map((easing) => {
        const effect = document.body.animate(null, { duration: 1000, easing })
        effect.pause()
        return times.map((time) => {
          effect.currentTime = time * 1000
          return effect.effect!.getComputedTiming().progress!
        })
      }),
    [all.map(easingCss), moments] as const,
  )
  all.forEach((easing, i) => {
    const differences = moments.map((moment, at) => Math.abs(ease(easing, moment) - theirs[i]![at]!))
    expect(Math.max(...differences), easingCss(easing)).toBeLessThanOrEqual(1e-4)
  })
})

test('blend modes in a shader are those of the core', async ({ page }) => {
  const random = seededRandom(5)
  const corners = [0, 64, 127, 128, 191, 255]
  const code = () => (random() < 0.3 ? corners[Math.floor(random() * corners.length)]! : Math.floor(random() * 256))
  const pixels = () => Array.from({ length: PIXELS * 4 }, (_, i) => (i % 4 === 3 ? 255 : code()))
  const [below, above] = [pixels(), pixels()]
  for (const { name, glsl, mix } of blendModes) {
    const theirs = await page.evaluate(
      ([text, under, over, count]) => {
        const gl = new OffscreenCanvas(1, 1).getContext('webgl2')!
        gl.getExtension('EXT_color_buffer_float')
        const program = gl.createProgram()
        const sources = [
          [gl.VERTEX_SHADER, 'void main() { gl_Position = vec4(vec2((gl_VertexID << 1) & 2, gl_VertexID & 2) * 2.0 - 1.0, 0.0, 1.0); }'],
          [
            gl.FRAGMENT_SHADER,
            `precision highp float; uniform sampler2D below; uniform sampler2D above; out vec4 result; ${text}
            void main() { ivec2 at = ivec2(gl_FragCoord.xy); result = vec4(BLEND(texelFetch(below, at, 0).rgb, texelFetch(above, at, 0).rgb), 1.0); }`,
          ],
        ] as const
        for (const [type, source] of sources) {
          const shader = gl.createShader(type)!
          gl.shaderSource(shader, `#version 300 es\n${source}`)
          gl.compileShader(shader)
          if (gl.getShaderParameter(shader, gl.COMPILE_STATUS) !== true) throw new Error(gl.getShaderInfoLog(shader) ?? 'no shader')
          gl.attachShader(program, shader)
        }
        gl.linkProgram(program)
        gl.useProgram(program)
        const texture = (unit: number, internal: number, layout: number, type: number, data: ArrayBufferView | null) => {
          const made = gl.createTexture()
          gl.activeTexture(gl.TEXTURE0 + unit)
          gl.bindTexture(gl.TEXTURE_2D, made)
          gl.texImage2D(gl.TEXTURE_2D, 0, internal, count, 1, 0, layout, type, data)
          gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MIN_FILTER, gl.NEAREST)
          return made
        }
        texture(0, gl.RGBA8, gl.RGBA, gl.UNSIGNED_BYTE, Uint8Array.from(under))
        texture(1, gl.RGBA8, gl.RGBA, gl.UNSIGNED_BYTE, Uint8Array.from(over))
        gl.uniform1i(gl.getUniformLocation(program, 'below'), 0)
        gl.uniform1i(gl.getUniformLocation(program, 'above'), 1)
        gl.bindFramebuffer(gl.FRAMEBUFFER, gl.createFramebuffer())
        gl.framebufferTexture2D(gl.FRAMEBUFFER, gl.COLOR_ATTACHMENT0, gl.TEXTURE_2D, texture(2, gl.RGBA32F, gl.RGBA, gl.FLOAT, null), 0)
        gl.viewport(0, 0, count, 1)
        gl.drawArrays(gl.TRIANGLES, 0, 3)
        const seen = new Float32Array(count * 4)
        gl.readPixels(0, 0, count, 1, gl.RGBA, gl.FLOAT, seen)
        gl.getExtension('WEBGL_lose_context')?.loseContext()
        return [...seen]
      },
      [glsl, below, above, PIXELS] as const,
    )
    const colourAt = (codes: readonly number[], at: number) => [codes[at]! / 255, codes[at + 1]! / 255, codes[at + 2]! / 255] as const
    let largest = 0
    for (let at = 0; at < below.length; at += 4) {
      mix(colourAt(below, at), colourAt(above, at)).forEach((value, channel) => (largest = Math.max(largest, Math.abs(value - theirs[at + channel]!))))
    }
    // Single precision: far less than half a code.
    expect(largest, name).toBeLessThanOrEqual(1e-4)
  }
})

test('gradients of opaque colours are those of the browser’s canvas (HTML canvas gradients; CSS Images Level 4)', async ({ page }) => {
  const random = seededRandom(21)
  const side = 64
  const stops = () =>
    [0, 0.15 + random() * 0.3, 0.5 + random() * 0.4, 1].map((at) => ({
      at,
      colour: [random(), random(), random()].map((value) => Math.round(value * 255) / 255) as [number, number, number],
      opacity: 1,
    }))
  const place = () => 4 + random() * 56
  const gradients: Gradient[] = [
    ...Array.from({ length: 6 }, (): Gradient => ({ kind: 'linear', fromX: place(), fromY: place(), toX: place(), toY: place(), stops: stops() })),
    ...Array.from({ length: 4 }, (): Gradient => ({ kind: 'radial', centreX: place(), centreY: place(), radius: 10 + random() * 30, stops: stops() })),
  ]
  for (const gradient of gradients) {
    const seen = await page.evaluate(
      ([one, size]) => {
        const pen = new OffscreenCanvas(size, size).getContext('2d')!
        const fill =
          one.kind === 'linear'
            ? pen.createLinearGradient(one.fromX, one.fromY, one.toX, one.toY)
            : pen.createRadialGradient(one.centreX, one.centreY, 0, one.centreX, one.centreY, one.radius)
        for (const { at, colour } of one.stops) fill.addColorStop(at, `rgb(${colour.map((value) => Math.round(value * 255)).join(' ')})`)
        pen.fillStyle = fill
        pen.fillRect(0, 0, size, size)
        return [...pen.getImageData(0, 0, size, size).data]
      },
      [gradient, side] as const,
    )
    const out = new Float64Array(4)
    let largest = 0
    for (let i = 0; i < side * side; i += 1) {
      gradientAt(gradient, (i % side) + 0.5, Math.floor(i / side) + 0.5, out)
      out.forEach((value, channel) => (largest = Math.max(largest, Math.abs(value * 255 - seen[i * 4 + channel]!))))
    }
    // The canvas works in single precision and dithers nothing: a code.
    expect(largest, JSON.stringify(gradient)).toBeLessThanOrEqual(1.2)
  }
})

test('outlines are filled and stroked as the browser’s canvas does (SVG 2 path data, HTML Path2D, fill and stroke)', async ({ page }) => {
  const side = 100
  const paths = [
    ...Object.values(usualOutlines),
    // Every command, long and short, absolute and relative; a hole by the other way round; a loop that crosses itself.
    'M10 80 c 20 -60 30 -60 40 0 s 30 40 40 -10 v 20 h -80 z',
    'M10 50 q 15 -40 30 0 t 30 0 T 90 50 L 50 95 Z',
    'M50 5 a 45 45 0 1 0 0.1 0 z m 0 25 A 20 20 0 1 1 49.9 30 z',
    'M20 20 C 120 20 -20 80 80 80',
  ]
  for (const path of paths) {
    for (const widthPx of [0, 2, 5]) {
      const seen = await page.evaluate(
        ([data, size, stroke]) => {
          const pen = new OffscreenCanvas(size, size).getContext('2d')!
          const outline = new Path2D(data)
          pen.fillStyle = '#ff0000'
          pen.fill(outline)
          // SVG's initial values; the canvas has another limit.
          pen.lineJoin = 'miter'
          pen.miterLimit = 4
          pen.lineCap = 'butt'
          pen.lineWidth = stroke
          pen.strokeStyle = '#0000ff'
          if (stroke > 0) pen.stroke(outline)
          return [...pen.getImageData(0, 0, size, size).data]
        },
        [path, side, widthPx] as const,
      )
      const stroke = widthPx === 0 ? null : { widthPx, colour: '#0000ff', opacity: 1 }
      const fill = { kind: 'plain', colour: '#ff0000', opacity: 1 } as const
      const { data } = outlinePicture({ data: path, boxWidth: side, boxHeight: side, padPx: 0, fill, stroke }, side, side)
      let sum = 0
      let far = 0
      for (let i = 0; i < data.length; i += 4) {
        // Premultiplied, since the colour of what is nearly clear says nothing.
        const difference = Math.max(
          ...[0, 2].map((channel) => Math.abs((data[i + channel]! * data[i + 3]! - seen[i + channel]! * seen[i + 3]!) / 255)),
          Math.abs(data[i + 3]! - seen[i + 3]!),
        )
        sum += difference
        if (difference > 48) far += 1
      }
      // The canvas knows sixteen shares of a pixel or so, and strokes bent curves up to a fifth of a pixel beside their line (a stroke one
      // pixel wide it draws as a hair line): its fill, which it has from the same curve, agrees.
      expect(sum / (side * side), `${path} ${widthPx}`).toBeLessThan(widthPx === 0 ? 0.8 : 1.5)
      expect(far, `${path} ${widthPx}`).toBeLessThanOrEqual(widthPx === 0 ? 12 : 45)
    }
  }
})
