// Strokes by chance on the pages and scenes of a random show.
import { strokesSchema, strokeTools, type Stroke } from '../../core/drawing/stroke.ts'
import { strokePicture, StrokesCanvas, type DrawnPicture } from '../../core/drawing/strokes-canvas.ts'
import { pageSurface, sceneSurface, type DrawnPart, type Drawings } from '../../core/drawing/surface.ts'
import type { Picture } from '../../core/picture/picture.ts'
import type { SourceId } from '../../core/picture/source.ts'
import { seededRandom } from '../../core/random/seeded.ts'
import { isTransition, type Stage } from '../../core/stage/stage.ts'
import type { ShowCase } from './random-shows.ts'

export interface DrawnCase extends ShowCase {
  readonly drawings: Drawings
}

/** Strokes of every kind, also beyond the edges. */
export function randomStrokes(seed: number, count: number): readonly Stroke[] {
  const random = seededRandom(seed)
  const place = () => random() * 1.3 - 0.15
  const strokes = Array.from({ length: count }, (_, index): Stroke => {
    const tool = strokeTools[Math.floor(random() * strokeTools.length)]!
    const [x, y] = [place(), place()]
    const hand = Array.from({ length: 12 }, (_, i) => [x + (random() - 0.4) * 0.04 * i, y + (random() - 0.5) * 0.05 * i, random()])
    const points = tool === 'pen' || tool === 'marker' ? hand.flat() : [x, y, 0.5, place(), place(), 0.5]
    const colour = `#${Math.floor(random() * 2 ** 24)
      .toString(16)
      .padStart(6, '0')}`
    return { id: `s${index}`, tool, colour, width: 0.01 + random() * 0.06, points }
  })
  return strokesSchema.parse(strokes)
}

/** The show of a case with something drawn on each page and each scene; one stroke of each fades from `fadesFromMs` on. */
export function withDrawings(one: ShowCase, seed: number, fadesFromMs: number): DrawnCase {
  const { canvas, scenes } = one.show
  const pictures = new Map<SourceId, Picture>(one.inputs)
  const surfaces = [
    ...scenes.map(({ id }) => ({ surface: sceneSurface(id), ...canvas })),
    ...one.show.inputs.flatMap((input) => ('pages' in input ? input.pages.map((page) => ({ surface: pageSurface(input.id, page.id), ...page })) : [])),
  ]
  const drawings = new Map(
    surfaces.map(({ surface, widthPx, heightPx }, index) => {
      const strokes = randomStrokes(seed + 92_000 + index, 5)
      const drawn = new StrokesCanvas(widthPx, heightPx)
      drawn.show(strokes.slice(1))
      const part = (name: string, picture: DrawnPicture | null, fades: number | null): DrawnPart[] => {
        if (picture === null) return []
        const sourceId = `strokes:show/${surface}:${name}`
        pictures.set(sourceId, picture.picture)
        const size = { widthPx: picture.picture.widthPx, heightPx: picture.picture.heightPx, surfaceWidthPx: widthPx, surfaceHeightPx: heightPx }
        return [{ sourceId, x: picture.x, y: picture.y, ...size, fadesFromMs: fades }]
      }
      return [surface, [...part('lasting', drawn.picture(), null), ...part('s0', strokePicture(strokes[0]!, widthPx, heightPx), fadesFromMs)]] as const
    }),
  )
  return { ...one, inputs: pictures as ShowCase['inputs'], drawings }
}

/** A stage with what is drawn on each of its scenes. */
export function drawnStage(stage: Stage, drawings: Drawings): Stage {
  if (!isTransition(stage)) return { ...stage, drawings }
  return { ...stage, from: drawnStage(stage.from, drawings), to: { ...stage.to, drawings } }
}
