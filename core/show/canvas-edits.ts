// A canvas of another size: everything on it follows.
import { scaledContent } from '../layers/index.ts'
import { scaledFrame } from '../box/frame.ts'
import { mapLayers } from '../layers/tree.ts'
import { RANGES, withinRange } from '../schema/limits.ts'
import type { Layer, Placement, Show } from './show.ts'

/**
 * Gives the canvas another size or rate. Boxes keep their share of the canvas; what was whole stays whole. Borders, corners and letters
 * follow the shorter side, so that they look the same. Pictures are not distorted: their fit decides, as before.
 */
export function setCanvas(show: Show, canvas: Show['canvas']): Show {
  const before = show.canvas
  const scaleX = canvas.widthPx / before.widthPx
  const scaleY = canvas.heightPx / before.heightPx
  if (scaleX === 1 && scaleY === 1) return canvas.frameRate === before.frameRate ? show : { ...show, canvas }
  const scale = Math.min(scaleX, scaleY)
  const place = ({ x, y, width, height, angleDeg, fit }: Placement): Placement => {
    // Boxes of words, forms and marks keep their shape about the place that they had; what reaches over an edge follows both directions.
    const isWide = width >= before.widthPx * WIDE || height >= before.heightPx * WIDE || scaleX === scaleY
    const [nextWidth, nextHeight] = isWide ? [width * scaleX, height * scaleY] : [width * scale, height * scale]
    const centreX = (x + width / 2) * scaleX
    const centreY = (y + height / 2) * scaleY
    return {
      x: withinRange(RANGES.position, centreX - nextWidth / 2),
      y: withinRange(RANGES.position, centreY - nextHeight / 2),
      width: withinRange(RANGES.size, nextWidth),
      height: withinRange(RANGES.size, nextHeight),
      angleDeg,
      fit,
    }
  }
  const follow = (layer: Layer): Layer => ({
    ...layer,
    placement: place(layer.placement),
    frame: scaledFrame(layer.frame, (px, range) => withinRange(RANGES[range], px * scale)),
  })
  return {
    ...show,
    canvas,
    contents: show.contents.map((content) => scaledContent(content, scale)),
    scenes: show.scenes.map((scene) => ({ ...scene, layers: mapLayers(scene.layers, follow) })),
  }
}

/** A box that takes so much of a side belongs to the edges. */
const WIDE = 0.9
