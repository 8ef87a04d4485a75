// Consecutive colour functions fused into one pass, with reading a source before and premultiplying after.
import type { PixelRect } from '../../core/picture/picture.ts'
import type { PointShader } from '../../core/steps/step.ts'
import type { GlDevice, Pass, Surface } from './device.ts'
import { TABLE_COLUMNS, type LutBook } from './lut-book.ts'

/** What the pass reads: a straight picture, or the three planes of a camera frame. */
export type PointInput = 'straight' | 'planes'

/** Numbers before those of the steps: the kept rectangle, then the coding of planes. */
const KEEP = 4
const CODING = 5

/** The pass for some colour functions, and room for its numbers. For one chain and one kind of input. */
export class PointPass {
  readonly #device: GlDevice
  readonly #pass: Pass
  readonly #values: Float32Array
  readonly #inputs: Surface[]
  readonly #sourceCount: number

  /** Throws a GraphicsError when it can't be compiled. `coding` is luma scale and offset, chroma scale, Kr, Kb in codes. */
  constructor(
    device: GlDevice,
    luts: LutBook,
    shaders: readonly PointShader[],
    keep: PixelRect,
    input: PointInput,
    form: 'straight' | 'premultiplied',
    coding: readonly number[],
  ) {
    this.#device = device
    this.#sourceCount = input === 'planes' ? 3 : 1
    const tables: Surface[] = []
    const values = [keep.left, keep.top, keep.right, keep.bottom, ...coding]
    const steps: string[] = []
    const calls: string[] = []
    shaders.forEach((shader, i) => {
      const table = shader.lut === null ? -1 : this.#sourceCount + tables.length
      if (shader.lut !== null) tables.push(luts.surface(shader.lut))
      steps.push(placed(shader.source, `step${i}`, values.length, table))
      calls.push(`  pixel = step${i}(pixel);`)
      values.push(...shader.values)
    })
    const body = `
${input === 'planes' ? READ_PLANES : 'vec4 readSource(ivec2 place) { return texelFetch(t0, place, 0); }'}
${steps.join('\n')}
void main() {
  ivec2 place = here;
  if (place.x < int(VALUE[0]) || place.y < int(VALUE[1]) || place.x >= int(VALUE[2]) || place.y >= int(VALUE[3])) { result = vec4(0.0); return; }
  vec4 pixel = readSource(place);
${calls.join('\n')}
  pixel = clamp(pixel, 0.0, 1.0);
  result = ${form === 'premultiplied' ? 'premultiplied(pixel)' : 'pixel'};
}`
    this.#values = Float32Array.from(values)
    this.#pass = device.pass(body, this.#sourceCount + tables.length, values.length)
    this.#inputs = [...new Array<Surface>(this.#sourceCount), ...tables]
  }

  /** Reads `sources` (one straight picture, or Y, Cb, Cr) and fills `target`. */
  run(sources: readonly Surface[], target: Surface): void {
    for (let i = 0; i < this.#sourceCount; i += 1) this.#inputs[i] = sources[i]!
    this.#device.run(this.#pass, target, this.#inputs, this.#values)
  }
}

/** The text of a step with its names and numbers put in place. */
export function placed(source: string, name: string, firstValue: number, table: number): string {
  return source
    .replaceAll('STEP', name)
    .replace(/VALUE\[(\d+)\]/g, (_, index: string) => `VALUE[${firstValue + Number(index)}]`)
    .replaceAll('TABLE(', `tableAt${table}(`)
    .replace(/^/, table < 0 ? '' : tableReader(table))
}

function tableReader(table: number): string {
  return `vec3 tableAt${table}(int index) { return texelFetch(t${table}, ivec2(index % ${TABLE_COLUMNS}, index / ${TABLE_COLUMNS}), 0).rgb; }\n`
}

/** 4:2:0 as core/picture/i420.ts reads it: chroma between its neighbours, rounded to a code. */
const READ_PLANES = `
int codeAt(sampler2D plane, ivec2 place) { return int(round(texelFetch(plane, place, 0).r * 255.0)); }
float chromaAt(sampler2D plane, ivec2 place) {
  ivec2 cell = place >> 1;
  ivec2 side = insideOf(plane, cell + (place & 1) * 2 - 1);
  int near = 3 * codeAt(plane, cell) + codeAt(plane, ivec2(cell.x, side.y));
  int far = 3 * codeAt(plane, ivec2(side.x, cell.y)) + codeAt(plane, side);
  return float((3 * near + far + 8) >> 4);
}
vec4 readSource(ivec2 place) {
  float luma = (float(codeAt(t0, place)) - VALUE[5]) / VALUE[4];
  float cb = (chromaAt(t1, place) - 128.0) / VALUE[6];
  float cr = (chromaAt(t2, place) - 128.0) / VALUE[6];
  float red = luma + 2.0 * (1.0 - VALUE[7]) * cr;
  float blue = luma + 2.0 * (1.0 - VALUE[8]) * cb;
  return vec4(clip(vec3(red, (luma - VALUE[7] * red - VALUE[8] * blue) / (1.0 - VALUE[7] - VALUE[8]), blue)), 1.0);
}`

/** How many numbers stand before those of the steps. */
export const FIRST_STEP_VALUE = KEEP + CODING
