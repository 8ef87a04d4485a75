import { Islands } from '../../matte/islands.ts'
import { levelled } from '../../matte/levels.ts'
import { EdgeSolver } from '../../matte/solve-edges.ts'
import { featherPlane, spreadPlane } from '../../matte/spread.ts'
import type { FloatPicture, Plane } from '../../picture/float-picture.ts'
import type { MatteEdgeSettings } from './params.ts'

/** Detail or levels, specks and holes, choke, feather, in this order. */
export function matteEdgeReference(picture: FloatPicture, settings: MatteEdgeSettings): FloatPicture {
  const { widthPx, heightPx } = picture
  const { black, white, detail, choke, feather, specks, holes } = settings
  const data = picture.data.slice()
  if (detail > 0) new EdgeSolver(widthPx, heightPx).solve(data, { black, white, amount: detail })
  else for (let at = 3; at < data.length; at += 4) data[at] = levelled(data[at]!, black, white)
  if (specks > 0 || holes > 0) new Islands(widthPx, heightPx).clean(data, 3, 4, 1, specks, holes)
  if (choke !== 0 || feather > 0) {
    let alpha: Plane = { widthPx, heightPx, data: data.filter((_, i) => (i & 3) === 3) }
    if (choke !== 0) alpha = spreadPlane(alpha, choke)
    alpha = featherPlane(alpha, feather)
    for (let i = 0; i < alpha.data.length; i += 1) data[i * 4 + 3] = alpha.data[i]!
  }
  return { ...picture, data }
}
