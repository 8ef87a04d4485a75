// Seeded shows of every kind of layer: what plans and live executors are held to. Runs in browsers too.
import { newStep } from '../../core/steps/treatment.ts'
import { inputSourceId, pageSourceId } from '../../core/inputs/source-ids.ts'
import type { SourceId, SourceInfo } from '../../core/picture/source.ts'
import { OUTLINE_BOX, usualOutlines } from '../../core/outline/usual-outlines.ts'
import { outlinePicture } from '../../core/outline/outline-picture.ts'
import { blendModes, type BlendName } from '../../core/blend/index.ts'
import type { Picture } from '../../core/picture/picture.ts'
import type { FramePlan } from '../../core/plan/frame-plan.ts'
import { seededRandom } from '../../core/random/seeded.ts'
import { appearanceKinds, sides, type Appearance } from '../../core/motion/appearance.ts'
import { namedEasings } from '../../core/motion/easing.ts'
import { BARE_SCENE, newMicrophone } from '../../core/show/create.ts'
import { USUAL_STYLE } from '../../core/show/style.ts'
import { USUAL_TRANSITIONS } from '../../core/show/show-transitions.ts'
import { frameForms, type Content, type DeckPage, type Frame, type Input, type Layer, type Outline, type Scene, type Show } from '../../core/show/show.ts'
import { goTo, type TransitionStage } from '../../core/stage/stage.ts'
import { usualTransitions, type Transition } from '../../core/transitions/index.ts'
import { USUAL_LETTERS } from '../../core/text/text-content.ts'
import { rgbaToI420 } from './i420.ts'
import { smoothPicture } from './parity-cases.ts'

export const SHOW_SEEDS = Array.from({ length: 16 }, (_, i) => 301 + i)
const CANVAS = { widthPx: 160, heightPx: 120, frameRate: 30 } as const

const box = { width: OUTLINE_BOX, height: OUTLINE_BOX }
/** Drawn forms that some shapes have. */
const OUTLINES: readonly Outline[] = [
  { path: usualOutlines.bubble, ...box, stroke: { widthPx: 3, colour: '#204060', opacity: 0.7 } },
  { path: usualOutlines.star, ...box, stroke: null },
  { path: 'M10 10 C 90 10 90 90 10 90 S 60 50 10 10', ...box, stroke: { widthPx: 0.6, colour: '#ffffff', opacity: 1 } },
]

const slide = (number: number, widthPx: number, heightPx: number): DeckPage => ({
  id: `p${number}`,
  asset: String(number).repeat(64),
  widthPx,
  heightPx,
  number,
  title: '',
  notes: '',
  skipped: false,
  strokes: [],
})

export interface ShowCase {
  readonly show: Show
  readonly infos: ReadonlyMap<SourceId, SourceInfo>
  readonly inputs: ReadonlyMap<SourceId, Picture>
}

/** The show of a seed: its first scene shows the others. `moves`: whether its layers come and go. */
export function showCase(seed: number, moves = false): ShowCase {
  const random = seededRandom(seed)
  /** Of its own, so that what the others gave stays. */
  const cropping = seededRandom(seed + 90_000)
  const paging = seededRandom(seed + 91_000)
  let count = 0
  const makeId = () => `r${(count += 1)}`
  const inputs: Input[] = [
    { id: 'camera', kind: 'camera', name: 'Camera', device: { type: 'standin', standin: 'cloth' }, ...CANVAS, treatment: [newStep('tone', makeId)] },
    { id: 'photo', kind: 'picture', name: 'Photo', asset: 'a'.repeat(64), treatment: [] },
    { id: 'mark', kind: 'picture', name: 'Mark', asset: 'b'.repeat(64), treatment: [] },
    { id: 'wall', kind: 'colour', name: 'Wall', colour: '#8fa396', treatment: [] },
    {
      id: 'slides',
      kind: 'deck',
      name: 'Slides',
      fileName: 'slides.pdf',
      pages: [slide(1, 192, 108), slide(2, 192, 108), slide(3, 90, 120)],
      pageId: 'p2',
      plannedMin: null,
      treatment: [],
    },
  ]
  const contents: Content[] = []
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

  function appearance(): Appearance {
    return {
      kind: pick(appearanceKinds),
      durationMs: 100 + Math.round(random() * 500),
      delayMs: random() < 0.5 ? 0 : Math.round(random() * 200),
      easing: pick(Object.values(namedEasings)),
      side: pick(sides),
    }
  }

  function base() {
    const isWhole = random() < 0.3
    return {
      id: makeId(),
      name: 'Layer',
      visible: random() < 0.95,
      locked: false,
      part: null,
      crop: cropping() < 0.3 ? { left: cropping() * 0.4, top: cropping() * 0.5, right: cropping() * 0.4, bottom: cropping() * 0.2 } : null,
      opacity: random() < 0.6 ? 1 : random(),
      blend: random() < 0.7 ? 'normal' : (pick(blendModes).name satisfies BlendName),
      placement: isWhole
        ? { x: 0, y: 0, width: CANVAS.widthPx, height: CANVAS.heightPx, angleDeg: 0, fit: 'fill' as const }
        : {
            // No -0: stored text has none.
            x: Math.round(random() * 120 - 20) + 0,
            y: random() * 60 - 15,
            width: 12 + Math.round(random() * 150),
            height: 10 + random() * 80,
            angleDeg: random() < 0.3 ? random() * 360 : 0,
            fit: pick(['fit', 'fill', 'stretch'] as const),
          },
      frame: isWhole && random() < 0.6 ? { form: 'box' as const, cornerRadiusPx: 0, border: null, shadow: null } : frame(),
      entrance: moves && random() < 0.4 ? appearance() : null,
      exit: moves && random() < 0.4 ? appearance() : null,
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
      const id = makeId()
      contents.push({ id, kind: 'shape', fill, outline: contents.length % 2 === 1 ? OUTLINES[contents.length % OUTLINES.length]! : null })
      return { ...base(), kind: 'shape', treatment: [], contentId: id }
    }
    if (sort < 0.35 && depth > 0) return { ...base(), kind: 'group', layers: layers(depth - 1, shown) }
    if (sort < 0.5 && shown.length > 0) return { ...base(), kind: 'scene', sceneId: pick(shown) }
    if (sort < 0.6) {
      const block = { text: 'Words', weight: 500, sizePx: 14, colour: '#ffffff' }
      const id = makeId()
      contents.push({ id, kind: 'text', text: { ...USUAL_LETTERS, family: 'Bricolage Grotesque', align: 'start', blocks: [block], plate: null } })
      return { ...base(), kind: 'text', contentId: id }
    }
    const common = base()
    const inputId = pick(['camera', 'camera', 'photo', 'mark', 'wall'])
    // Some photos are slides instead: whatever page they are at, or always the same one.
    const isSlides = inputId === 'photo' && paging() < 0.6
    const pageId = isSlides ? [null, 'p1', 'p3'][Math.floor(paging() * 3)]! : null
    return { ...common, kind: 'input', inputId: isSlides ? 'slides' : inputId, pageId }
  }

  function layers(depth: number, shown: readonly string[]): Layer[] {
    return Array.from({ length: 2 + Math.floor(random() * 3) }, () => layer(depth, shown))
  }

  const scenes = [
    { ...BARE_SCENE, id: 'first', name: 'First', layers: layers(2, ['second', 'third']) },
    { ...BARE_SCENE, id: 'second', name: 'Second', layers: layers(1, ['third']) },
    { ...BARE_SCENE, id: 'third', name: 'Third', layers: layers(1, []) },
  ]
  const pictures = new Map<SourceId, Picture>([
    [inputSourceId('camera'), rgbaToI420(smoothPicture(seed, 160, 120, true))],
    [inputSourceId('photo'), smoothPicture(seed + 1, 200, 150, true)],
    [inputSourceId('mark'), smoothPicture(seed + 2, 40, 40)],
    [inputSourceId('slides'), smoothPicture(seed + 3, 192, 108, true)],
    [pageSourceId('slides', 'p1'), smoothPicture(seed + 4, 192, 108, true)],
    [pageSourceId('slides', 'p3'), smoothPicture(seed + 5, 90, 120, true)],
  ])
  return {
    show: {
      format: 'green-room-show',
      version: 10,
      name: 'Random',
      canvas: CANVAS,
      inputs,
      contents,
      scenes,
      presenter: { name: 'Iva Kovač', title: 'Beekeeper', countdownTo: '19:00' },
      style: USUAL_STYLE,
      transitions: USUAL_TRANSITIONS,
      favourites: [],
      microphone: newMicrophone({ type: 'none' }),
      holdingCard: { title: '', detail: '' },
    },
    infos: new Map([...pictures].map(([id, { widthPx, heightPx }]) => [id, { widthPx, heightPx, isOpaque: id !== inputSourceId('mark') }])),
    inputs: pictures,
  }
}

export const MOVING_SEEDS = Array.from({ length: 24 }, (_, i) => 401 + i)

export interface MovingCase extends ShowCase {
  readonly stage: TransitionStage
  readonly timeMs: number
}

/** A show on its way from one scene to another, by each transition in turn; every third was interrupted on the way. */
export function movingCase(seed: number): MovingCase {
  const one = showCase(seed, true)
  const random = seededRandom(seed + 1000)
  const [first, second, third] = one.show.scenes as [Scene, Scene, Scene]
  const all: Transition[] = [...Object.values(usualTransitions), { ...usualTransitions.wipe, kind: 'pictureWipe', inputId: 'photo', softness: 0.2 }]
  const begin = (random() - 0.5) * 400
  const at = (number: number) => all[number % all.length]!
  const turned = (transition: Transition): Transition =>
    transition.kind === 'wipe' ? { ...transition, angleDeg: random() * 360, softness: random() } : transition
  const under = goTo({ scene: first, enteredMs: begin }, second, turned(at(seed)), 100)
  if (seed % 3 !== 0) return { ...one, stage: under, timeMs: 100 + random() * 600 }
  const stage = goTo(under, third, turned(at(seed * 5 + 2)), 300)
  return { ...one, stage, timeMs: 300 + random() * 400 }
}

/** Pictures for all that a plan reads; its texts are any pictures of their size. */
export function picturesFor({ inputs }: Pick<ShowCase, 'inputs'>, plan: FramePlan): Map<SourceId, Picture> {
  const pictures = new Map(inputs)
  for (const { sourceId, widthPx, heightPx } of plan.texts) pictures.set(sourceId, smoothPicture(sourceId.length, widthPx, heightPx))
  for (const { sourceId, outline, widthPx, heightPx } of plan.outlines) pictures.set(sourceId, outlinePicture(outline, widthPx, heightPx))
  for (const node of plan.nodes) {
    if (node.kind === 'treated' && node.sourceId.startsWith('colour:')) {
      pictures.set(node.sourceId, { format: 'rgba', widthPx: 1, heightPx: 1, data: Uint8Array.of(0x8f, 0xa3, 0x96, 255) })
    }
  }
  return pictures
}
