// Pictures of the input in hand, as they reach a step.
import type { RgbaPicture } from '../../core/picture/picture.ts'
import { useEngineStore } from '../engine/engine.store.ts'
import { useBenchStore } from './bench.store.ts'

export function useGrab() {
  const engine = useEngineStore()
  const bench = useBenchStore()
  return {
    /** The picture before step `stepId`; null while there is none. */
    grabBefore: (stepId: string): Promise<RgbaPicture | null> =>
      bench.inputId === null ? Promise.resolve(null) : engine.calls().pictures.grab(bench.inputId, stepId, bench.layer),
    /** The picture as it comes. */
    grabUntreated: (): Promise<RgbaPicture | null> =>
      bench.inputId === null ? Promise.resolve(null) : engine.calls().pictures.grab(bench.inputId, null, bench.layer),
  }
}

/** A picture as a PNG file, encoded by the browser. */
export async function pngOf(picture: RgbaPicture, name: string): Promise<File> {
  const canvas = new OffscreenCanvas(picture.widthPx, picture.heightPx)
  const pen = canvas.getContext('2d')
  if (pen === null) throw new Error('this browser refused a 2-D canvas')
  pen.putImageData(new ImageData(Uint8ClampedArray.from(picture.data), picture.widthPx, picture.heightPx), 0, 0)
  return new File([await canvas.convertToBlob({ type: 'image/png' })], name, { type: 'image/png' })
}
