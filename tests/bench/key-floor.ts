// What the error of a found key is made of: opacity in the soft edge solved with the true colours of presenter and cloth, with
// those spread from where they are sure, and with either in turn. Mean squared errors over the whole picture.
import { placesInCells } from '../../core/filter/bilinear.ts'
import { LUMA_B, LUMA_G, LUMA_R } from '../../core/colour/luma.ts'
import { PullPush } from '../../core/matte/pull-push.ts'
import { CELL_PX, SAMPLE_STEP } from '../../core/matte/solve-edges.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import { toRgba8 } from '../../core/render/render-reference.ts'
import { treatReference } from '../../core/render/treat-reference.ts'
import type { StandinCamera } from '../../core/show/show.ts'
import { nodeCamera } from '../../standins/camera/node-camera.ts'

export interface FloorFigures {
  /** Both true: what grain and halved colour resolution leave. */
  readonly bothTrue: number
  /** The cloth as a clean plate would give it, the presenter's colour spread. */
  readonly trueCloth: number
  readonly truePresenter: number
  /** Both spread, as the step does it. */
  readonly bothSpread: number
}

const WIDTH = 1280
const HEIGHT = 720
const TIMES_MS = [1000, 8200]
const CLOTHS: readonly StandinCamera[] = ['cloth', 'unevenCloth', 'creasedCloth', 'noisyCloth', 'blueCloth', 'heavySpill', 'dimLight', 'darkNoisyCloth']
/** A third of what the stand-in shows at either side is wall and lamp stand. */
const FROM_X = 170
const TO_X = 1150

type Colour = readonly [number, number, number]

export async function benchKeyFloor(say: (text: string) => void): Promise<Record<string, FloorFigures>> {
  const result: Record<string, FloorFigures> = {}
  for (const standin of CLOTHS) {
    say(`keyFloor: ${standin}`)
    const camera = await nodeCamera({ widthPx: WIDTH, heightPx: HEIGHT, standin })
    const all = TIMES_MS.map((timeMs) => figuresAt(camera, timeMs))
    const mean = (name: keyof FloorFigures) => all.reduce((sum, each) => sum + each[name], 0) / all.length
    result[standin] = { bothTrue: mean('bothTrue'), trueCloth: mean('trueCloth'), truePresenter: mean('truePresenter'), bothSpread: mean('bothSpread') }
  }
  return result
}

function figuresAt(camera: Awaited<ReturnType<typeof nodeCamera>>, timeMs: number): FloorFigures {
  const seen = toRgba8(treatReference(camera.picture(timeMs), [])).data
  const empty = toRgba8(treatReference(camera.emptyPicture(), [])).data
  const presenter = camera.foreground(timeMs).data
  const truth = camera.matte(timeMs)
  const spreadPresenter = spread(seen, (i) => truth[i] === 255)
  const spreadCloth = spread(seen, (i) => truth[i] === 0)
  const sums = { bothTrue: 0, trueCloth: 0, truePresenter: 0, bothSpread: 0 }
  for (let y = 1; y < HEIGHT - 1; y += 1) {
    for (let x = FROM_X; x < TO_X; x += 1) {
      const i = y * WIDTH + x
      if (truth[i] === 0 || truth[i] === 255) continue
      const colour = colourAt(seen, i)
      const error = (front: Colour, back: Colour) => (opacityOf(colour, front, back) - truth[i]! / 255) ** 2
      const fronts = [colourAt(presenter, i), spreadPresenter(x, y)] as const
      const backs = [calm(empty, i), spreadCloth(x, y)] as const
      sums.bothTrue += error(fronts[0], backs[0])
      sums.trueCloth += error(fronts[1], backs[0])
      sums.truePresenter += error(fronts[0], backs[1])
      sums.bothSpread += error(fronts[1], backs[1])
    }
  }
  const scale = 1 / (WIDTH * HEIGHT)
  return { bothTrue: sums.bothTrue * scale, trueCloth: sums.trueCloth * scale, truePresenter: sums.truePresenter * scale, bothSpread: sums.bothSpread * scale }
}

function colourAt(data: RgbaPicture['data'], i: number): Colour {
  return [data[i * 4]! / 255, data[i * 4 + 1]! / 255, data[i * 4 + 2]! / 255]
}

/** The mean of 3 × 3: a plate without most of its grain. */
function calm(data: RgbaPicture['data'], i: number): Colour {
  const sum: [number, number, number] = [0, 0, 0]
  for (let dy = -1; dy <= 1; dy += 1) {
    for (let dx = -1; dx <= 1; dx += 1) for (let channel = 0; channel < 3; channel += 1) sum[channel]! += data[(i + dy * WIDTH + dx) * 4 + channel]! / (9 * 255)
  }
  return sum
}

/** Colours spread by pull and push from pixels that are sure with their four neighbours. */
function spread(data: RgbaPicture['data'], isSure: (i: number) => boolean): (x: number, y: number) => Colour {
  const columns = Math.ceil(WIDTH / CELL_PX)
  const pyramid = new PullPush(columns, Math.ceil(HEIGHT / CELL_PX))
  pyramid.sums.data.fill(0)
  for (let y = SAMPLE_STEP; y < HEIGHT - 1; y += SAMPLE_STEP) {
    for (let x = SAMPLE_STEP; x < WIDTH - 1; x += SAMPLE_STEP) {
      const i = y * WIDTH + x
      if (![0, 1, -1, WIDTH, -WIDTH].every((offset) => isSure(i + offset))) continue
      const cell = (Math.floor(y / CELL_PX) * columns + Math.floor(x / CELL_PX)) * 4
      for (let channel = 0; channel < 3; channel += 1) pyramid.sums.data[cell + channel]! += data[i * 4 + channel]! / 255
      pyramid.sums.data[cell + 3]! += 1
    }
  }
  const colours = pyramid.run()!
  const across = placesInCells(WIDTH, CELL_PX)
  const down = placesInCells(HEIGHT, CELL_PX)
  return (x, y) => {
    const sample = (channel: number) => {
      const at = (row: number, column: number) => colours[(row * columns + column) * 3 + channel]!
      const upper = at(down.below[y]!, across.below[x]!) * (1 - across.share[x]!) + at(down.below[y]!, across.above[x]!) * across.share[x]!
      const lower = at(down.above[y]!, across.below[x]!) * (1 - across.share[x]!) + at(down.above[y]!, across.above[x]!) * across.share[x]!
      return upper * (1 - down.share[y]!) + lower * down.share[y]!
    }
    return [sample(0), sample(1), sample(2)]
  }
}

/** The projection of core/matte/solve-edges.ts with the found levels 0.06 and 0.94. */
function opacityOf(colour: Colour, front: Colour, back: Colour): number {
  const off = differences(colour, back)
  const span = differences(front, back)
  const along = off[0] * span[0] + off[1] * span[1] + off[2] * span[2]
  const length = span[0] ** 2 + span[1] ** 2 + span[2] ** 2
  return Math.min(1, Math.max(0, (along / Math.max(1e-4, length) - 0.06) / 0.88))
}

function differences(first: Colour, second: Colour): Colour {
  const [red, green, blue] = [first[0] - second[0], first[1] - second[1], first[2] - second[2]]
  const luma = LUMA_R * red + LUMA_G * green + LUMA_B * blue
  return [luma, (blue - luma) / (2 * (1 - LUMA_B)), (red - luma) / (2 * (1 - LUMA_R))]
}
