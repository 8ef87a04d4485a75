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

/** Whether the same layers are seen in the same places; what part of a picture is shown may differ, since heads move. */
export function looksAlike(one: Scene, other: Scene): boolean {
  const seen = ({ layers }: Scene) => layers.filter(({ visible }) => visible).map(({ id, placement, frame }: Layer) => ({ id, placement, frame }))
  return JSON.stringify(seen(one)) === JSON.stringify(seen(other))
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
