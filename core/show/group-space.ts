// Where things in groups lie. A group has a canvas of its own, as large as the show's, that its box shows; on the stage, and in edits, places
// are those on the canvas of the scene.
import { isGroup } from '../layers/group.ts'
import { followedBy, inverse, mapPoint, scaling, type Affine } from '../composite/affine.ts'
import { boxToCanvas } from '../box/placement.ts'
import type { GroupLayer, Layer, Placement, Scene, Show } from './show.ts'

type Canvas = Pick<Show['canvas'], 'widthPx' | 'heightPx'>

/** The groups that a layer of a scene lies in, the outermost first; none for one that lies in the scene itself, and for an unknown id. */
export function groupsRound(scene: Pick<Scene, 'layers'>, layerId: string): readonly GroupLayer[] {
  const visit = (layers: readonly Layer[], groups: readonly GroupLayer[]): readonly GroupLayer[] | null => {
    for (const layer of layers) {
      if (layer.id === layerId) return groups
      const found = isGroup(layer) ? visit(layer.layers, [...groups, layer]) : null
      if (found !== null) return found
    }
    return null
  }
  return visit(scene.layers, []) ?? []
}

/** The list that a layer lies in: its group's, or the scene's. Undefined for an unknown id. */
export function listAround(scene: Pick<Scene, 'layers'>, layerId: string): readonly Layer[] | undefined {
  const list = groupsRound(scene, layerId).at(-1)?.layers ?? scene.layers
  return list.some(({ id }) => id === layerId) ? list : undefined
}

/** A place in the innermost of some groups, as it is on the scene's canvas. What lies turned in a stretched group is shown as the box that comes nearest. */
export function toSceneCanvas(placement: Placement, groups: readonly GroupLayer[], canvas: Canvas): Placement {
  return groups.reduceRight((inner, group) => {
    const { placement: outer } = group
    const { scaleX, scaleY } = scalesOf(group, canvas)
    const [centreX, centreY] = mapPoint(mapOf(group, canvas), inner.x + inner.width / 2, inner.y + inner.height / 2)
    return about(centreX, centreY, inner.width * scaleX, inner.height * scaleY, inner.angleDeg + outer.angleDeg, inner.fit)
  }, placement)
}

/** The inverse of toSceneCanvas. */
export function fromSceneCanvas(placement: Placement, groups: readonly GroupLayer[], canvas: Canvas): Placement {
  return groups.reduce((outer, group) => {
    const { scaleX, scaleY } = scalesOf(group, canvas)
    const [centreX, centreY] = mapPoint(inverse(mapOf(group, canvas)), outer.x + outer.width / 2, outer.y + outer.height / 2)
    return about(centreX, centreY, outer.width / scaleX, outer.height / scaleY, outer.angleDeg - group.placement.angleDeg, outer.fit)
  }, placement)
}

/** How much larger or smaller a group shows its canvas. */
export function scalesOf({ placement }: Pick<GroupLayer, 'placement'>, { widthPx, heightPx }: Canvas): { readonly scaleX: number; readonly scaleY: number } {
  return { scaleX: placement.width / widthPx, scaleY: placement.height / heightPx }
}

function mapOf(group: GroupLayer, canvas: Canvas): Affine {
  const { scaleX, scaleY } = scalesOf(group, canvas)
  return followedBy(scaling(scaleX, scaleY), boxToCanvas(group.placement))
}

function about(centreX: number, centreY: number, width: number, height: number, angle: number, fit: Placement['fit']): Placement {
  const angleDeg = tidy(Math.abs(angle) > 360 ? angle % 360 : angle)
  return { x: tidy(centreX - width / 2), y: tidy(centreY - height / 2), width: tidy(width), height: tidy(height), angleDeg, fit }
}

/** There and back again is the same number. */
function tidy(value: number): number {
  return Math.round(value * 1e6) / 1e6
}
