import { inputSourceId } from '../../core/inputs/source-ids.ts'
import type { SourceInfo } from '../../core/picture/source.ts'
import { demoShow } from '../../demo/show.ts'
import type { Scene, Show } from '../../core/show/show.ts'

const HASH = (digit: string) => digit.repeat(64)

/** The demo show with made-up hashes. */
export function testShow(): Show {
  return demoShow({ wall: HASH('a'), mark: HASH('b'), meadow: HASH('c') })
}

/** A scene of it by name. */
export function sceneNamed(show: Show, name: string): Scene {
  const scene = show.scenes.find((candidate) => candidate.name === name)
  if (scene === undefined) throw new RangeError(`the demo has no scene "${name}"`)
  return scene
}

/** Sizes as if every input had a picture: opaque, except the mark. */
export function allInfos(show: Show): Map<string, SourceInfo> {
  return new Map(
    show.inputs
      .filter((input) => input.kind !== 'colour')
      .map((input) => [
        inputSourceId(input.id),
        { widthPx: input.kind === 'camera' ? 1280 : 1920, heightPx: input.kind === 'camera' ? 720 : 1080, isOpaque: input.name !== 'Society mark' },
      ]),
  )
}
