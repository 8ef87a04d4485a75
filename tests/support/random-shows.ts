// Seeded shows of every kind of layer: what plans and live executors are held to. Runs in browsers too.
import { blendModes, type BlendName } from '../../core/blend/index.ts'
import type { Picture } from '../../core/picture/picture.ts'
import type { FramePlan, SourceId, SourceInfo } from '../../core/plan/frame-plan.ts'
import { inputSourceId } from '../../core/plan/plan-frame.ts'
import { seededRandom } from '../../core/random/seeded.ts'
import { newMicrophone, newStep } from '../../core/show/create.ts'
import { frameForms, type Frame, type Input, type Layer, type Show } from '../../core/show/show.ts'
import { rgbaToI420 } from './i420.ts'
import { smoothPicture } from './parity-cases.ts'

export const SHOW_SEEDS = Array.from({ length: 16 }, (_, i) => 301 + i)
const CANVAS = { widthPx: 160, heightPx: 120, frameRate: 30 } as const

export interface ShowCase {
  readonly show: Show
  readonly infos: ReadonlyMap<SourceId, SourceInfo>
  readonly inputs: ReadonlyMap<SourceId, Picture>
}

/** The show of a seed: its first scene shows the others. */
export function showCase(seed: number): ShowCase {
  const random = seededRandom(seed)
  let count = 0
  const makeId = () => `r${(count += 1)}`
  const inputs: Input[] = [
    { id: 'camera', kind: 'camera', name: 'Camera', device: { type: 'standin', standin: 'cloth' }, ...CANVAS, treatment: [newStep('tone', makeId)] },
    { id: 'photo', kind: 'picture', name: 'Photo', asset: 'a'.repeat(64), treatment: [] },
    { id: 'mark', kind: 'picture', name: 'Mark', asset: 'b'.repeat(64), treatment: [] },
    { id: 'wall', kind: 'colour', name: 'Wall', colour: '#8fa396', treatment: [] },
  ]
  const pick = <T>(choices: readonly T[]): T => choices[Math.floor(random() * choices.length)]!
  const colour = () =>
    `#${Math.floor(random() * 2 ** 24)
      .toString(16)
      .padStart(6, '0')}`

  function frame(): Frame {
    return {
      form: pick(frameForms),
      cornerRadiusPx: pick([0, 0, 6, 40]),
      border: random() < 0.3 ? { widthPx: 1 + random() * 6, colour: colour(), opacity: 0.4 + random() * 0.6, side: pick(['inside', 'outside']) } : null,
      shadow: random() < 0.3 ? { dx: random() * 10 - 5, dy: random() * 10 - 5, blurPx: random() * 12, colour: colour(), opacity: random() } : null,
    }
  }

  function base() {
    const isWhole = random() < 0.3
    return {
      id: makeId(),
      name: 'Layer',
      visible: random() < 0.95,
      locked: false,
      opacity: random() < 0.6 ? 1 : random(),
      blend: random() < 0.7 ? 'normal' : (pick(blendModes).name satisfies BlendName),
      placement: isWhole
        ? { x: 0, y: 0, width: CANVAS.widthPx, height: CANVAS.heightPx, angleDeg: 0, fit: 'fill' as const }
        : {
            x: Math.round(random() * 120 - 20),
            y: random() * 60 - 15,
            width: 12 + Math.round(random() * 150),
            height: 10 + random() * 80,
            angleDeg: random() < 0.3 ? random() * 360 : 0,
            fit: pick(['fit', 'fill', 'stretch'] as const),
          },
      frame: isWhole && random() < 0.6 ? { form: 'box' as const, cornerRadiusPx: 0, border: null, shadow: null } : frame(),
      treatment: random() < 0.2 ? [newStep('tone', makeId)] : [],
    }
  }

  const stop = (at: number) => ({ at, colour: colour(), opacity: random() < 0.6 ? 1 : random() })

  function layer(depth: number, shown: readonly string[]): Layer {
    const sort = random()
    if (sort < 0.15) {
      const kind = pick(['plain', 'linear', 'radial'] as const)
      const stops = [stop(0), stop(random()), stop(1)]
      const fill =
        kind === 'plain'
          ? { kind, colour: colour(), opacity: random() }
          : kind === 'linear'
            ? { kind, angleDeg: Math.round(random() * 360), stops }
            : { kind, stops }
      return { ...base(), kind: 'shape', treatment: [], fill }
    }
    if (sort < 0.35 && depth > 0) return { ...base(), kind: 'group', layers: layers(depth - 1, shown) }
    if (sort < 0.5 && shown.length > 0) return { ...base(), kind: 'scene', sceneId: pick(shown) }
    if (sort < 0.6) {
      const block = { text: 'Words', weight: 500, sizePx: 14, colour: '#ffffff' }
      return { ...base(), kind: 'text', text: { family: 'Bricolage Grotesque', align: 'start', blocks: [block], plate: null } }
    }
    return { ...base(), kind: 'input', inputId: pick(['camera', 'camera', 'photo', 'mark', 'wall']) }
  }

  function layers(depth: number, shown: readonly string[]): Layer[] {
    return Array.from({ length: 2 + Math.floor(random() * 3) }, () => layer(depth, shown))
  }

  const scenes = [
    { id: 'first', name: 'First', layers: layers(2, ['second', 'third']) },
    { id: 'second', name: 'Second', layers: layers(1, ['third']) },
    { id: 'third', name: 'Third', layers: layers(1, []) },
  ]
  const pictures = new Map<SourceId, Picture>([
    [inputSourceId('camera'), rgbaToI420(smoothPicture(seed, 160, 120, true))],
    [inputSourceId('photo'), smoothPicture(seed + 1, 200, 150, true)],
    [inputSourceId('mark'), smoothPicture(seed + 2, 40, 40)],
  ])
  return {
    show: {
      format: 'green-room-show',
      version: 4,
      name: 'Random',
      canvas: CANVAS,
      inputs,
      scenes,
      microphone: newMicrophone({ type: 'none' }),
      holdingCard: { title: '', detail: '' },
    },
    infos: new Map([...pictures].map(([id, { widthPx, heightPx }]) => [id, { widthPx, heightPx, isOpaque: id !== inputSourceId('mark') }])),
    inputs: pictures,
  }
}

/** Pictures for all that a plan reads; its texts are any pictures of their size. */
export function picturesFor({ inputs }: Pick<ShowCase, 'inputs'>, plan: FramePlan): Map<SourceId, Picture> {
  const pictures = new Map(inputs)
  for (const { sourceId, widthPx, heightPx } of plan.texts) pictures.set(sourceId, smoothPicture(sourceId.length, widthPx, heightPx))
  for (const node of plan.nodes) {
    if (node.kind === 'treated' && node.sourceId.startsWith('colour:')) {
      pictures.set(node.sourceId, { format: 'rgba', widthPx: 1, heightPx: 1, data: Uint8Array.of(0x8f, 0xa3, 0x96, 255) })
    }
  }
  return pictures
}
