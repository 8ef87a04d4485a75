// What layouts that were tried have left: hidden dividers and ink that nobody has made anything of.
import { PLAIN_FRAME } from '../../box/frame.ts'
import { shapeOf, isShape } from '../../layers/shape.ts'
import { removeLayers } from '../../show/layer-set-edits.ts'
import type { Layer, Scene, Show, ShapeLayer } from '../../show/show.ts'
import { showsSame } from '../../layers/index.ts'
import { inkModeOf } from '../inside-page.ts'
import { DIVIDER_COLOUR } from './arrange-scene.ts'

/** The show without them. A part that has a look of its own stays, hidden, for the next time, and so does one of `kept`; locked scenes stay as they are. */
export function withoutIdleParts(show: Show, kept: ReadonlySet<string> = new Set()): Show {
  return show.scenes.reduce((current, scene) => {
    if (scene.locked) return current
    const idle = scene.layers.filter((layer) => !kept.has(layer.id) && isIdle(show, scene, layer)).map(({ id }) => id)
    return idle.length === 0 ? current : removeLayers(current, scene.id, idle)
  }, show)
}

/** Parts that are hidden now. */
export function hiddenParts({ scenes }: Show): ReadonlySet<string> {
  return new Set(scenes.flatMap(({ layers }) => layers.flatMap(({ id, part, visible }) => (part !== null && !visible ? [id] : []))))
}

function isIdle(show: Show, scene: Scene, layer: Layer): boolean {
  if (layer.part === null || layer.visible || layer.locked || layer.opacity !== 1) return false
  if (layer.part === 'ink') return isUsualInk(scene, layer)
  return layer.part === 'divider' && isShape(layer) && layer.blend === 'normal' && layer.treatment.length === 0 && isPlain(layer) && isUsualFill(show, layer)
}

/** A layout makes ink that darkens, with the steps of its page. */
function isUsualInk({ layers }: Scene, ink: Layer): boolean {
  const page = layers.find((layer) => layer.part === null && showsSame(layer, ink))
  const stepsOf = (layer: Layer) => JSON.stringify(layer.treatment.map(({ id: _, ...step }) => step))
  return inkModeOf(ink) === 'all' && (page === undefined || stepsOf(page) === stepsOf(ink))
}

function isPlain({ frame }: Layer): boolean {
  return JSON.stringify(frame) === JSON.stringify({ ...PLAIN_FRAME, form: 'box' })
}

function isUsualFill(show: Show, layer: ShapeLayer): boolean {
  const { fill, outline } = shapeOf(show, layer)
  return outline === null && fill.kind === 'plain' && fill.colour === DIVIDER_COLOUR && fill.opacity === 1
}
