import type { Layer, Scene, Show } from '../show/show.ts'

/** The same show and scene on a canvas `factor` times the size, for thumbnails. */
export function scaleScene(show: Show, scene: Scene, factor: number): { show: Show; scene: Scene } {
  const canvas = {
    ...show.canvas,
    widthPx: Math.max(1, Math.round(show.canvas.widthPx * factor)),
    heightPx: Math.max(1, Math.round(show.canvas.heightPx * factor)),
  }
  return { show: { ...show, canvas }, scene: { ...scene, layers: scene.layers.map((layer) => scaleLayer(layer, factor)) } }
}

function scaleLayer(layer: Layer, factor: number): Layer {
  const { placement } = layer
  const scaled = {
    placement: {
      ...placement,
      x: placement.x * factor,
      y: placement.y * factor,
      width: placement.width * factor,
      height: placement.height * factor,
    },
    frame: { cornerRadiusPx: layer.frame.cornerRadiusPx * factor },
  }
  if (layer.kind === 'input') return { ...layer, ...scaled }
  const { text } = layer
  return {
    ...layer,
    ...scaled,
    text: {
      ...text,
      blocks: text.blocks.map((block) => ({ ...block, sizePx: block.sizePx * factor })),
      plate: text.plate === null ? null : { ...text.plate, paddingPx: text.plate.paddingPx * factor },
    },
  }
}
