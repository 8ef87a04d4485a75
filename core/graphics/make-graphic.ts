// Graphics ready to use: kinds of them, each in every family. What comes out is a scene like any other, to be changed as one.
import type { Rect } from '../box/fit.ts'
import { safeArea } from '../layout/safe-area.ts'
import type { Input } from '../inputs/input.ts'
import type { Canvas, Content } from '../layers/layer.ts'
import type { Appearance } from '../motion/appearance.ts'
import type { MakeId } from '../random/make-id.ts'
import { newScene } from '../show/create.ts'
import type { Scene } from '../show/show.ts'
import { PHOTO_ROOM } from '../show/visibility.ts'
import { families, type Family, type GraphicFamily, type Stand } from './families.ts'
import { layersFrom, type Part, type WordsBlock, type WordsPart } from './parts.ts'

export const graphicKinds = ['nameStrip', 'portrait', 'title', 'banner', 'agenda', 'caption', 'quote', 'countdown', 'clock', 'border'] as const
export type GraphicKind = (typeof graphicKinds)[number]

/** Keys that show and hide graphics unless the presenter changes them, by the place of the letter on the keyboard. */
export const USUAL_KEYS: Readonly<Record<GraphicKind | 'logo', string>> = {
  nameStrip: 'KeyN',
  portrait: 'KeyP',
  title: 'KeyT',
  banner: 'KeyI',
  agenda: 'KeyA',
  caption: 'KeyU',
  quote: 'KeyQ',
  countdown: 'KeyC',
  clock: 'KeyK',
  border: 'KeyO',
  logo: 'KeyL',
}

/** A graphic ready to use. */
export interface GraphicPreset {
  readonly kind: GraphicKind
  readonly family: GraphicFamily
}

/** The words of graphics in the presenter's language: what they and their parts are called, and what they say at first. */
export interface GraphicWords {
  readonly names: Readonly<Record<GraphicKind, string>>
  readonly parts: Readonly<Record<'plate' | 'photo' | 'name' | 'heading' | 'text' | 'point' | 'source', string>>
  readonly says: {
    readonly title: string
    readonly subtitle: string
    readonly bannerHeading: string
    readonly bannerText: string
    readonly agenda: string
    readonly points: readonly string[]
    readonly caption: string
    readonly quote: string
    readonly source: string
    readonly countdown: string
  }
}

/** A graphic with what its layers show, before it is part of a show. */
export interface NewGraphic {
  readonly graphic: Scene
  readonly contents: readonly Content[]
}

/** Banners and agendas let the picture through. */
const BANNER_OPACITY = 0.8
const PLATE_OPACITY = 1
/** Points of a list come one after another. */
const BETWEEN_TURNS_MS = 140

interface Sheet {
  readonly family: Family
  readonly words: GraphicWords
  readonly canvas: Canvas
  /** The part of the canvas that every screen shows (SMPTE ST 2046-1, EBU R 95). */
  readonly safe: Rect
  /** A pixel of a canvas of 720 lines, or columns where it is upright. */
  readonly unit: number
  /** Who is shown, in a graphic with a photo. */
  readonly photo: Input | null
}

/** A graphic of a kind in the looks of a family, for a canvas of any shape; `photo` for one that shows somebody, an input of the show. */
export function makeGraphic({ kind, family }: GraphicPreset, words: GraphicWords, canvas: Canvas, makeId: MakeId, photo: Input | null = null): NewGraphic {
  const { widthPx, heightPx } = canvas
  const sheet = { family: families[family], words, canvas, safe: safeArea('title', widthPx, heightPx), unit: Math.min(widthPx, heightPx) / 720, photo }
  const parts = drawn[kind](sheet)
  const { entrance } = sheet.family
  const comes = (turn: number): Appearance => ({ ...entrance, ...(turn === 0 ? {} : { kind: 'fade' }), delayMs: turn * BETWEEN_TURNS_MS })
  const goes: Appearance = { ...entrance, durationMs: Math.round(entrance.durationMs * 0.6), delayMs: 0 }
  const { layers, contents } = layersFrom(parts, words.parts, comes, goes, makeId)
  return { graphic: { ...newScene(words.names[kind], makeId), graphic: { key: null }, layers }, contents }
}

const drawn: Readonly<Record<GraphicKind, (sheet: Sheet) => readonly Part[]>> = {
  nameStrip: (sheet) => {
    const { safe, unit, words } = sheet
    const box = bottomLeft(safe, Math.min(safe.width, 560 * unit), 116 * unit)
    return worded(sheet, box, 'bottom', PLATE_OPACITY, (room, head, body) => [part(words.parts.name, room, nameBlocks(unit, head, body))])
  },
  portrait: (sheet) => portrait(sheet),
  title: (sheet) => {
    const { safe, unit, words } = sheet
    const width = Math.min(safe.width, 940 * unit)
    const height = 210 * unit
    const box = { x: safe.x + (safe.width - width) / 2, y: safe.y + (safe.height - height) / 2, width, height }
    return worded(sheet, box, 'middle', PLATE_OPACITY, (room, head, body) => [
      part(
        words.parts.heading,
        room,
        [
          { text: words.says.title, sizePx: 66 * unit, weight: 700, colour: head },
          { text: words.says.subtitle, sizePx: 31 * unit, weight: 450, colour: body },
        ],
        'centre',
      ),
    ])
  },
  banner: (sheet) => {
    const { unit, words } = sheet
    return bannered(sheet, (room, head, body) => {
      const headHeight = Math.min(room.height * 0.34, 130 * unit)
      return [
        part(words.parts.heading, { ...room, height: headHeight }, [{ text: words.says.bannerHeading, sizePx: 46 * unit, weight: 700, colour: head }]),
        part(
          words.parts.text,
          { ...room, y: room.y + headHeight, height: (room.height - headHeight) * 0.6 },
          [{ text: words.says.bannerText, sizePx: 31 * unit, weight: 450, colour: body }],
          'start',
          1,
        ),
      ]
    })
  },
  agenda: (sheet) => {
    const { unit, words } = sheet
    return bannered(sheet, (room, head, body) => {
      const { points } = words.says
      const headHeight = Math.min(room.height * 0.3, 110 * unit)
      const each = Math.min(92 * unit, (room.height - headHeight) / points.length)
      return [
        part(words.parts.heading, { ...room, height: headHeight }, [{ text: words.says.agenda, sizePx: 46 * unit, weight: 700, colour: head }]),
        ...points.map((text, index) =>
          part(
            `${words.parts.point} ${index + 1}`,
            { ...room, y: room.y + headHeight + index * each, height: each },
            [{ text, sizePx: 31 * unit, weight: 450, colour: body }],
            'start',
            index + 1,
          ),
        ),
      ]
    })
  },
  caption: (sheet) => {
    const { safe, unit, words } = sheet
    const height = 84 * unit
    const box = { x: safe.x, y: safe.y + safe.height - height, width: safe.width, height }
    return worded(sheet, box, 'bottom', PLATE_OPACITY, (room, _head, body) => [
      part(words.parts.text, room, [{ text: words.says.caption, sizePx: 31 * unit, weight: 500, colour: body }], 'centre'),
    ])
  },
  quote: (sheet) => {
    const { safe, unit, words } = sheet
    const width = Math.min(safe.width, 800 * unit)
    const height = Math.min(safe.height, 290 * unit)
    const box = { x: safe.x + (safe.width - width) / 2, y: safe.y + (safe.height - height) / 2, width, height }
    return worded(sheet, box, 'middle', PLATE_OPACITY, (room, head, body) => {
      const sourceHeight = 48 * unit
      return [
        part(words.parts.text, { ...room, height: room.height - sourceHeight }, [{ text: words.says.quote, sizePx: 44 * unit, weight: 600, colour: head }]),
        part(
          words.parts.source,
          { ...room, y: room.y + room.height - sourceHeight, height: sourceHeight },
          [{ text: words.says.source, sizePx: 26 * unit, weight: 450, colour: body }],
          'end',
          1,
        ),
      ]
    })
  },
  countdown: (sheet) => {
    const { safe, unit, words } = sheet
    const box = topRight(safe, Math.min(safe.width, 300 * unit), 150 * unit)
    return worded(sheet, box, 'corner', PLATE_OPACITY, (room, head, body) => [
      part(
        words.parts.text,
        room,
        [
          { text: words.says.countdown, sizePx: 25 * unit, weight: 450, colour: body },
          { text: '{countdown}', sizePx: 58 * unit, weight: 700, colour: head },
        ],
        'centre',
      ),
    ])
  },
  clock: (sheet) => {
    const { safe, unit, words } = sheet
    const box = topRight(safe, Math.min(safe.width, 210 * unit), 96 * unit)
    return worded(sheet, box, 'corner', PLATE_OPACITY, (room, head) => [
      part(words.parts.text, room, [{ text: '{time}', sizePx: 44 * unit, weight: 700, colour: head }], 'centre'),
    ])
  },
  border: ({ family, canvas, unit }) => family.border({ x: 0, y: 0, width: canvas.widthPx, height: canvas.heightPx }, unit),
}

type Fill = (room: Rect, head: WordsBlock['colour'], body: WordsBlock['colour']) => readonly Part[]

function worded({ family, unit, canvas: { widthPx, heightPx } }: Sheet, box: Rect, stand: Stand, opacity: number, fill: Fill): readonly Part[] {
  const { parts, room, head, body } = family.ground(box, unit, stand, opacity, { x: 0, y: 0, width: widthPx, height: heightPx })
  return [...parts, ...fill(room, head, body)]
}

/** A name strip with a photo at its beginning. Its parts know what becomes of them without it. */
function portrait(sheet: Sheet): readonly Part[] {
  const { safe, unit, words, family } = sheet
  const box = bottomLeft(safe, Math.min(safe.width, 680 * unit), 140 * unit)
  let photoBox = box
  let wordsX = box.x
  const parts = worded(sheet, box, 'bottom', PLATE_OPACITY, (room, head, body) => {
    const side = Math.min(room.height, room.width / 3)
    photoBox = { x: room.x, y: room.y + (room.height - side) / 2, width: side, height: side }
    const beside = Math.round(Math.round(side) * PHOTO_ROOM)
    wordsX = room.x + beside
    return [
      { type: 'photo', name: words.parts.photo, box: photoBox, frame: family.photo(unit), photo: sheet.photo, colour: head, turn: 0 },
      {
        ...part(words.parts.name, { ...room, x: room.x + beside, width: room.width - beside }, nameBlocks(unit, head, body)),
        part: 'besidePhoto',
      },
    ]
  })
  const isRound = ({ box: { x, width } }: Part) => x <= photoBox.x && x + width > wordsX && width < sheet.canvas.widthPx
  return parts.map((each) => (each.type === 'plate' && isRound(each) ? { ...each, part: 'roundPhoto' } : each))
}

const nameBlocks = (unit: number, head: WordsBlock['colour'], body: WordsBlock['colour']): readonly WordsBlock[] => [
  { text: '{name}', sizePx: 40 * unit, weight: 700, colour: head },
  { text: '{title}', sizePx: 25 * unit, weight: 450, colour: body },
]

/** A banner at the side, from edge to edge; on an upright canvas along the bottom. Its words stay where every screen shows them. */
function bannered(sheet: Sheet, fill: Fill): readonly Part[] {
  const { canvas, safe, unit } = sheet
  const isUpright = canvas.heightPx > canvas.widthPx
  const width = isUpright ? canvas.widthPx : Math.min(canvas.widthPx * 0.48, Math.max(canvas.widthPx * 0.34, 400 * unit))
  const height = isUpright ? canvas.heightPx * 0.42 : canvas.heightPx
  const box = { x: canvas.widthPx - width, y: canvas.heightPx - height, width, height }
  return worded(sheet, box, 'side', BANNER_OPACITY, (room, head, body) => fill(within(room, safe), head, body))
}

function within(room: Rect, safe: Rect): Rect {
  const left = Math.max(room.x, safe.x)
  const top = Math.max(room.y, safe.y)
  return {
    x: left,
    y: top,
    width: Math.max(1, Math.min(room.x + room.width, safe.x + safe.width) - left),
    height: Math.max(1, Math.min(room.y + room.height, safe.y + safe.height) - top),
  }
}

const part = (name: string, box: Rect, blocks: readonly WordsBlock[], align: WordsPart['align'] = 'start', turn = 0): WordsPart => ({
  type: 'words',
  name,
  box,
  blocks: blocks.map((block) => ({ ...block, sizePx: Math.max(4, block.sizePx) })),
  align,
  turn,
})

const bottomLeft = (safe: Rect, width: number, height: number): Rect => ({ x: safe.x, y: safe.y + safe.height - height, width, height })
const topRight = (safe: Rect, width: number, height: number): Rect => ({ x: safe.x + safe.width - width, y: safe.y, width, height })
