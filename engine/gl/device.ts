// The one place that owns a WebGL2 context. Surfaces have their first row at y = 0, as pictures in memory do.
// Pixel formats: bytes (8-bit), half and float (16- and 32-bit floating point), one or four channels.
import { colourGlsl } from '../../core/colour/glsl.ts'

export type SurfaceFormat = 'bytes' | 'half' | 'float' | 'floatOne' | 'byteOne'

/** A texture that passes may read, and draw into where its format allows. */
export interface Surface {
  readonly texture: WebGLTexture
  readonly frame: WebGLFramebuffer | null
  readonly format: SurfaceFormat
  readonly widthPx: number
  readonly heightPx: number
}

/** A compiled fragment shader over the whole of its target. */
export interface Pass {
  readonly program: WebGLProgram
  readonly values: WebGLUniformLocation | null
  readonly valueCount: number
}

/** The graphics card can't be used, or is no longer there; the message says why. */
export class GraphicsError extends Error {}

const VERTEX = `#version 300 es
void main() {
  vec2 corner = vec2((gl_VertexID << 1) & 2, gl_VertexID & 2);
  gl_Position = vec4(corner * 2.0 - 1.0, 0.0, 1.0);
}`

interface FormatCodes {
  readonly internal: number
  readonly layout: number
  readonly type: number
  readonly canBeDrawnInto: boolean
}

/** Textures a pass may read at once. */
const MOST_TEXTURES = 12

export class GlDevice {
  readonly gl: WebGL2RenderingContext
  readonly #formats: Readonly<Record<SurfaceFormat, FormatCodes>>
  readonly #passes = new Map<string, Pass>()
  readonly #surfaces = new Set<Surface>()
  readonly #vertexArray: WebGLVertexArrayObject

  /** Throws a GraphicsError when the graphics card lacks floating-point targets. */
  constructor(gl: WebGL2RenderingContext) {
    this.gl = gl
    if (gl.getExtension('EXT_color_buffer_float') === null) throw new GraphicsError('the graphics card can’t draw into floating-point pictures')
    this.#formats = {
      bytes: { internal: gl.RGBA8, layout: gl.RGBA, type: gl.UNSIGNED_BYTE, canBeDrawnInto: true },
      half: { internal: gl.RGBA16F, layout: gl.RGBA, type: gl.HALF_FLOAT, canBeDrawnInto: true },
      float: { internal: gl.RGBA32F, layout: gl.RGBA, type: gl.FLOAT, canBeDrawnInto: true },
      floatOne: { internal: gl.R32F, layout: gl.RED, type: gl.FLOAT, canBeDrawnInto: false },
      byteOne: { internal: gl.R8, layout: gl.RED, type: gl.UNSIGNED_BYTE, canBeDrawnInto: false },
    }
    this.#vertexArray = gl.createVertexArray()
    gl.bindVertexArray(this.#vertexArray)
    gl.pixelStorei(gl.UNPACK_ALIGNMENT, 1)
    gl.pixelStorei(gl.PACK_ALIGNMENT, 1)
    gl.disable(gl.DITHER)
  }

  /** Surfaces that were made and not yet freed. */
  get surfaceCount(): number {
    return this.#surfaces.size
  }

  get isLost(): boolean {
    return this.gl.isContextLost()
  }

  /**
   * Compiles `void main()` text that writes `result`. It may read `VALUE[0…valueCount)`, textures `t0`, `t1` … and the
   * helpers below. Equal text is compiled once. Throws a GraphicsError with numbered lines.
   */
  pass(body: string, textureCount: number, valueCount: number): Pass {
    const key = `${textureCount} ${valueCount} ${body}`
    const known = this.#passes.get(key)
    if (known !== undefined) return known
    if (textureCount > MOST_TEXTURES) throw new GraphicsError(`a pass may read ${MOST_TEXTURES} pictures, this one wants ${textureCount}`)
    const { gl } = this
    const program = gl.createProgram()
    for (const [type, source] of [
      [gl.VERTEX_SHADER, VERTEX],
      [gl.FRAGMENT_SHADER, fragmentOf(body, textureCount, valueCount)],
    ] as const) {
      const shader = gl.createShader(type)!
      gl.shaderSource(shader, source)
      gl.compileShader(shader)
      gl.attachShader(program, shader)
      gl.deleteShader(shader)
      if (!gl.isContextLost() && gl.getShaderParameter(shader, gl.COMPILE_STATUS) !== true) {
        throw new GraphicsError(`a shader does not compile: ${gl.getShaderInfoLog(shader)}\n${numbered(source)}`)
      }
    }
    gl.linkProgram(program)
    if (gl.isContextLost()) throw new GraphicsError('the graphics card was lost')
    if (gl.getProgramParameter(program, gl.LINK_STATUS) !== true) throw new GraphicsError(`a shader does not link: ${gl.getProgramInfoLog(program)}`)
    gl.useProgram(program)
    for (let i = 0; i < textureCount; i += 1) gl.uniform1i(gl.getUniformLocation(program, `t${i}`), i)
    const pass = { program, values: valueCount > 0 ? gl.getUniformLocation(program, 'VALUE') : null, valueCount }
    this.#passes.set(key, pass)
    return pass
  }

  /** A surface of its own; the caller frees it. Throws a GraphicsError when the graphics card was lost. */
  surface(format: SurfaceFormat, widthPx: number, heightPx: number): Surface {
    const { gl } = this
    const codes = this.#formats[format]
    const texture = gl.createTexture()
    gl.bindTexture(gl.TEXTURE_2D, texture)
    gl.texStorage2D(gl.TEXTURE_2D, 1, codes.internal, widthPx, heightPx)
    for (const [name, value] of [
      [gl.TEXTURE_MIN_FILTER, gl.NEAREST],
      [gl.TEXTURE_MAG_FILTER, gl.NEAREST],
      [gl.TEXTURE_WRAP_S, gl.CLAMP_TO_EDGE],
      [gl.TEXTURE_WRAP_T, gl.CLAMP_TO_EDGE],
    ] as const)
      gl.texParameteri(gl.TEXTURE_2D, name, value)
    let frame: WebGLFramebuffer | null = null
    if (codes.canBeDrawnInto) {
      frame = gl.createFramebuffer()
      gl.bindFramebuffer(gl.FRAMEBUFFER, frame)
      gl.framebufferTexture2D(gl.FRAMEBUFFER, gl.COLOR_ATTACHMENT0, gl.TEXTURE_2D, texture, 0)
    }
    const surface = { texture, frame, format, widthPx, heightPx }
    this.#surfaces.add(surface)
    return surface
  }

  /** Frees a surface, once. */
  free(surface: Surface): void {
    if (!this.#surfaces.delete(surface)) return
    this.gl.deleteTexture(surface.texture)
    this.gl.deleteFramebuffer(surface.frame)
  }

  /** Replaces what a surface shows; `data` holds it row by row. */
  upload(surface: Surface, data: Uint8Array | Uint8ClampedArray | Float32Array): void {
    const { gl } = this
    const { layout, type } = this.#formats[surface.format]
    gl.bindTexture(gl.TEXTURE_2D, surface.texture)
    gl.texSubImage2D(gl.TEXTURE_2D, 0, 0, 0, surface.widthPx, surface.heightPx, layout, type, data)
  }

  /** Fills `target` by a pass that reads `inputs`, which must not hold the target. `values` must be as many as the pass has. */
  run(pass: Pass, target: Surface, inputs: readonly Surface[], values: Float32Array): void {
    const { gl } = this
    gl.bindFramebuffer(gl.FRAMEBUFFER, target.frame)
    gl.viewport(0, 0, target.widthPx, target.heightPx)
    gl.useProgram(pass.program)
    if (pass.values !== null) gl.uniform1fv(pass.values, values, 0, pass.valueCount)
    for (let i = 0; i < inputs.length; i += 1) {
      gl.activeTexture(gl.TEXTURE0 + i)
      gl.bindTexture(gl.TEXTURE_2D, inputs[i]!.texture)
    }
    gl.drawArrays(gl.TRIANGLES, 0, 3)
    gl.activeTexture(gl.TEXTURE0)
  }

  /** Reads the bytes of a surface of bytes into `out`. Throws a GraphicsError when the graphics card was lost, so that nobody shows what it left. */
  read(surface: Surface, out: Uint8Array | Uint8ClampedArray): void {
    const { gl } = this
    gl.bindFramebuffer(gl.FRAMEBUFFER, surface.frame)
    gl.readPixels(0, 0, surface.widthPx, surface.heightPx, gl.RGBA, gl.UNSIGNED_BYTE, out)
    if (gl.isContextLost()) throw new GraphicsError('the graphics card was lost')
  }

  dispose(): void {
    const { gl } = this
    for (const surface of [...this.#surfaces]) this.free(surface)
    for (const { program } of this.#passes.values()) gl.deleteProgram(program)
    this.#passes.clear()
    gl.deleteVertexArray(this.#vertexArray)
  }
}

/** Helpers: `here` is the pixel being made; sizes and sampling of a texture, edges repeated. */
const HELPERS = `
#define here ivec2(gl_FragCoord.xy)
ivec2 insideOf(sampler2D picture, ivec2 at) { return clamp(at, ivec2(0), textureSize(picture, 0) - 1); }
vec4 at(sampler2D picture, ivec2 place) { return texelFetch(picture, insideOf(picture, place), 0); }
// Position in cells, centres at whole numbers; see core/filter/bilinear.ts.
vec4 between(sampler2D picture, vec2 position) {
  vec2 last = vec2(textureSize(picture, 0) - 1);
  vec2 place = clamp(position, vec2(0.0), last);
  ivec2 below = ivec2(floor(place));
  ivec2 above = min(below + 1, ivec2(last));
  vec2 share = place - vec2(below);
  vec4 upper = mix(texelFetch(picture, below, 0), texelFetch(picture, ivec2(above.x, below.y), 0), share.x);
  vec4 lower = mix(texelFetch(picture, ivec2(below.x, above.y), 0), texelFetch(picture, above, 0), share.x);
  return mix(upper, lower, share.y);
}
/* The mean of a box of so many pixels, at least one each; position as in between. What is beyond the picture counts as its edge. */
vec4 within(sampler2D picture, vec2 position, vec2 size) {
  if (max(size.x, size.y) < 1.00001) return between(picture, position);
  ivec2 last = textureSize(picture, 0) - 1;
  vec2 from = position + 0.5 - size / 2.0;
  vec2 to = from + size;
  vec4 sum = vec4(0.0);
  for (int y = int(floor(from.y)); y < int(ceil(to.y)); y += 1) {
    float tall = min(to.y, float(y + 1)) - max(from.y, float(y));
    for (int x = int(floor(from.x)); x < int(ceil(to.x)); x += 1) {
      float wide = min(to.x, float(x + 1)) - max(from.x, float(x));
      sum += texelFetch(picture, clamp(ivec2(x, y), ivec2(0), last), 0) * (wide * tall);
    }
  }
  return sum / (size.x * size.y);
}
vec4 premultiplied(vec4 pixel) { return vec4(pixel.rgb * pixel.a, pixel.a); }
vec4 straight(vec4 pixel) { return pixel.a == 0.0 ? vec4(0.0) : vec4(pixel.rgb / pixel.a, pixel.a); }
`

function fragmentOf(body: string, textureCount: number, valueCount: number): string {
  const samplers = Array.from({ length: textureCount }, (_, i) => `uniform sampler2D t${i};`).join('\n')
  return `#version 300 es
precision highp float;
precision highp int;
precision highp sampler2D;
${samplers}
${valueCount > 0 ? `uniform float VALUE[${valueCount}];` : ''}
out vec4 result;
${HELPERS}${colourGlsl}${body}`
}

function numbered(source: string): string {
  return source
    .split('\n')
    .map((line, i) => `${i + 1}: ${line}`)
    .join('\n')
}
