// A canvas of another size, for scenes with a layout: the layout is computed anew, all else follows by its share.
import { setCanvas } from '../../show/canvas-edits.ts'
import type { Layer, Scene, Show } from '../../show/show.ts'
import { arrangeScene, type PictureFacts } from './arrange-scene.ts'
import { castOf } from './cast.ts'
import { layoutNames, presenterSides, type Layout } from './layouts.ts'

const NAMES = { divider: 'Divider', ink: 'Ink' } as const

/** The layout that a scene has, if its layers are where one would put them; null otherwise. */
export function layoutOf(show: Show, scene: Scene, facts: PictureFacts): Layout | null {
  const cast = castOf(show, scene)
  for (const name of layoutNames) {
    for (const side of presenterSides) {
      let count = 0
      const made = arrangeScene(show, scene.id, { name, side }, cast, facts, NAMES, () => `try${(count += 1)}`)
      if (
        made !== show &&
        looksAlike(
          scene,
          made.scenes.find(({ id }) => id === scene.id)!,
        )
      )
        return { name, side }
    }
  }
  return null
}

/** How far the middle of what is shown of a picture may lie elsewhere, as a share of the picture, and how much larger it may be: heads move. */
const PART_MOVES = 0.2
const PART_GROWS = 1.4
const WHOLE = { left: 0, top: 0, right: 0, bottom: 0 } as const

/** Whether the same layers are seen in the same places, cleaned alike; the part of a picture that is shown may differ as much as heads move. */
export function looksAlike(one: Scene, other: Scene): boolean {
  const seenOf = ({ layers }: Scene) => layers.filter(({ visible }) => visible)
  const [seen, wanted] = [seenOf(one), seenOf(other)]
  return seen.length === wanted.length && seen.every((layer, i) => isPutAlike(layer, wanted[i]!) && showsAlike(layer.crop, wanted[i]!.crop))
}

function isPutAlike(one: Layer, other: Layer): boolean {
  const put = ({ id, placement, frame, treatment }: Layer) => JSON.stringify([id, placement, frame, treatment])
  return put(one) === put(other)
}

function showsAlike(one: Layer['crop'], other: Layer['crop']): boolean {
  const [a, b] = [one ?? WHOLE, other ?? WHOLE]
  const alike = (startA: number, endA: number, startB: number, endB: number) => {
    const [sizeA, sizeB] = [1 - startA - endA, 1 - startB - endB]
    return Math.abs(startA - endA - startB + endB) / 2 <= PART_MOVES && Math.max(sizeA, sizeB) <= PART_GROWS * Math.min(sizeA, sizeB)
  }
  return alike(a.left, a.right, b.left, b.right) && alike(a.top, a.bottom, b.top, b.bottom)
}

/** The show on another canvas. */
export function followCanvas(show: Show, canvas: Show['canvas'], facts: PictureFacts, makeId: () => string): Show {
  const layouts = show.scenes.flatMap((scene) => {
    const layout = layoutOf(show, scene, facts)
    return layout === null ? [] : [{ sceneId: scene.id, layout }]
  })
  const casts = new Map(show.scenes.map((scene) => [scene.id, castOf(show, scene)]))
  return layouts.reduce(
    (current, { sceneId, layout }) => arrangeScene(current, sceneId, layout, casts.get(sceneId)!, facts, NAMES, makeId),
    setCanvas(show, canvas),
  )
}
