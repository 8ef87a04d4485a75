// Backgrounds that are drawn from forms in the colours of the show: sharp at any size, and recoloured with everything else.
import { PLAIN_FRAME } from '../box/frame.ts'
import { newGroupLayer } from '../layers/group.ts'
import { newLayerBase, type Canvas, type Content, type Layer } from '../layers/layer.ts'
import type { MakeId } from '../random/make-id.ts'
import { seededRandom } from '../random/seeded.ts'
import { ALL, HEIGHT, WIDTH, area, below, circle, disc, ground, joined, linear, lines, many, plain, radial, rectangle, round, type Form } from './forms.ts'

export const drawnBackgrounds = [
  'dusk',
  'glow',
  'dunes',
  'folds',
  'panes',
  'shelf',
  'chips',
  'arches',
  'hills',
  'graph',
  'slats',
  'ripples',
  'leaves',
  'skyline',
] as const
export type DrawnBackground = (typeof drawnBackgrounds)[number]

/** A background as a layer, with what its forms are filled with. */
export interface NewBackground {
  readonly layer: Layer
  readonly contents: readonly Content[]
}

const drawn: Readonly<Record<DrawnBackground, () => readonly Form[]>> = {
  dusk: () => [
    ground(),
    { fill: linear(180, [0, 'ground', 0], [0.55, 'accent', 0.55], [1, 'panel', 0.5]), box: ALL },
    disc(radial([0, 'panel', 0.5], [0.4, 'panel', 0.28], [0.75, 'panel', 0.07], [1, 'panel', 0]), 1180, 690, 520),
  ],
  glow: () => [ground(), disc(radial([0, 'accent', 0.95], [1, 'accent', 0]), 340, 220, 760), disc(radial([0, 'panel', 0.28], [1, 'panel', 0]), 1340, 760, 620)],
  dunes: () => [
    ground('panel'),
    { fill: linear(180, [0, 'accent', 0.05], [1, 'accent', 0.25]), box: ALL },
    area(plain('accent', 0.25), below(520, 70, 1400, 0)),
    area(plain('accent', 0.5), below(650, 60, 1100, 1)),
    area(plain('accent'), below(770, 46, 900, 0)),
  ],
  folds: () => [
    ground(),
    area(linear(120, [0, 'accent', 0.1], [1, 'accent', 0.8]), 'M0 0 L620 0 L240 900 L0 900 Z'),
    area(linear(120, [0, 'accent', 0.75], [1, 'accent', 0.15]), 'M620 0 L1130 0 L860 900 L240 900 Z'),
    area(linear(120, [0, 'accent', 0.05], [1, 'accent', 0.6]), 'M1130 0 L1600 0 L1600 480 L1380 900 L860 900 Z'),
  ],
  panes: () => {
    // Evening light through a tall window of two by four panes, falling to the left.
    const pane = (column: number, row: number) => {
      const [x, y, width, height, lean] = [980 + column * 190, 60 + row * 175, 172, 158, -0.55]
      const at = (dx: number, dy: number) => `${round(x + dx + lean * (y + dy))} ${round(y + dy)}`
      return `M${at(0, 0)} L${at(width, 0)} L${at(width, height)} L${at(0, height)} Z`
    }
    return [
      ground('panel'),
      { fill: linear(160, [0, 'accent', 0.18], [1, 'accent', 0.5]), box: ALL },
      area(
        linear(180, [0, 'panel', 0.85], [1, 'panel', 0.15]),
        joined(8, (index) => pane(index % 2, Math.floor(index / 2))),
      ),
      area(plain('ground', 0.18), rectangle(0, 820, WIDTH, 80)),
    ]
  },
  shelf: () => {
    const random = seededRandom(11)
    const books = (shelf: number) => {
      const base = 270 + shelf * 260
      let x = 90
      const paths: string[] = []
      while (x < WIDTH - 120) {
        const [width, height] = [26 + random() * 38, 120 + random() * 70]
        if (random() < 0.8) paths.push(rectangle(x, base - height, width, height))
        x += width + (random() < 0.15 ? 120 : 5)
      }
      return paths
    }
    const all = [0, 1, 2].flatMap(books)
    const third = (which: number) => all.filter((_, index) => index % 3 === which).join(' ')
    return [
      ground(),
      { fill: linear(90, [0, 'panel', 0.02], [0.5, 'panel', 0.16], [1, 'panel', 0.02]), box: ALL },
      area(plain('accent'), third(0)),
      area(plain('panel', 0.75), third(1)),
      area(plain('accent', 0.55), third(2)),
      area(
        plain('panel', 0.32),
        joined(3, (index) => rectangle(40, 270 + index * 260, WIDTH - 80, 16)),
      ),
    ]
  },
  chips: () => {
    const random = seededRandom(5)
    const chips = (count: number) =>
      joined(count, () => {
        const [x, y, size, turn] = [random() * WIDTH, random() * HEIGHT, 12 + random() * 34, random() * Math.PI]
        const corner = (angle: number, share: number) =>
          `${round(x + size * share * Math.cos(turn + angle))} ${round(y + size * share * Math.sin(turn + angle))}`
        return `M${corner(0, 1)} L${corner(1.3, 0.7 + random() * 0.4)} L${corner(2.6, 0.9)} L${corner(4.1, 0.6 + random() * 0.4)} L${corner(5.2, 0.8)} Z`
      })
    return [ground('panel'), area(plain('accent', 0.85), chips(34)), area(plain('ground', 0.7), chips(26)), area(plain('accent', 0.32), chips(44))]
  },
  arches: () => {
    const arch = (x: number, radius: number, top: number) =>
      `M${x - radius} ${HEIGHT} L${x - radius} ${top} C${x - radius} ${round(top - radius * 1.333)} ${x + radius} ${round(top - radius * 1.333)} ${x + radius} ${top} L${x + radius} ${HEIGHT} Z`
    return [
      ground('panel'),
      { fill: plain('accent', 0.12), box: ALL },
      area(plain('accent', 0.3), arch(420, 330, 400)),
      area(plain('accent', 0.6), arch(420, 230, 440)),
      area(plain('accent'), arch(420, 130, 480)),
      area(plain('ground', 0.85), arch(1180, 240, 560)),
      area(plain('ground'), arch(1180, 140, 600)),
    ]
  },
  hills: () => [
    ground('panel'),
    { fill: linear(0, [0, 'accent', 0.5], [1, 'accent', 0.05]), box: ALL },
    disc(plain('panel'), 1160, 330, 120),
    area(plain('accent', 0.55), below(560, 110, 1900, 0)),
    area(plain('accent'), below(690, 80, 1300, 1)),
    area(plain('ground'), below(810, 50, 1700, 0)),
  ],
  graph: () => [
    ground('panel'),
    lines(
      'accent',
      0.22,
      1.5,
      `${joined(39, (index) => `M${(index + 1) * 40} 0 L${(index + 1) * 40} ${HEIGHT}`)} ${joined(22, (index) => `M0 ${(index + 1) * 40} L${WIDTH} ${(index + 1) * 40}`)}`,
    ),
    lines(
      'accent',
      0.5,
      2,
      `${joined(7, (index) => `M${(index + 1) * 200} 0 L${(index + 1) * 200} ${HEIGHT}`)} ${joined(4, (index) => `M0 ${(index + 1) * 200} L${WIDTH} ${(index + 1) * 200}`)}`,
    ),
    { fill: radial([0, 'panel', 0.85], [1, 'panel', 0]), box: { x: 300, y: 0, width: 1000, height: 900 }, form: 'ellipse' },
  ],
  slats: () => [
    ground('accent'),
    area(
      plain('ground', 0.4),
      joined(20, (index) => rectangle(index * 80, 0, 40, HEIGHT)),
    ),
    area(
      plain('panel', 0.14),
      joined(20, (index) => rectangle(index * 80 + 40, 0, 6, HEIGHT)),
    ),
    { fill: linear(180, [0, 'ground', 0], [0.6, 'ground', 0.2], [1, 'ground', 0.75]), box: ALL },
  ],
  ripples: () => [
    ground(),
    disc(radial([0, 'accent', 0.9], [1, 'accent', 0]), 1180, 380, 720),
    lines(
      'panel',
      0.32,
      4,
      joined(11, (index) => circle(1180, 380, 60 + index * 92)),
    ),
  ],
  leaves: () => {
    const random = seededRandom(23)
    const leaf = (x: number, y: number, length: number, angle: number) => {
      const at = (along: number, across: number) =>
        `${round(x + length * (along * Math.cos(angle) - across * Math.sin(angle)))} ${round(y + length * (along * Math.sin(angle) + across * Math.cos(angle)))}`
      return `M${at(0, 0)} C${at(0.25, -0.32)} ${at(0.75, -0.28)} ${at(1, 0)} C${at(0.75, 0.28)} ${at(0.25, 0.32)} ${at(0, 0)} Z`
    }
    const branch = (x: number, y: number, lean: number) =>
      joined(7, (index) => {
        const [bx, by] = [x + lean * index * 60, y - index * 78]
        const side = index % 2 === 0 ? -1 : 1
        return leaf(bx, by, 120 + random() * 50, -Math.PI / 2 + side * (0.7 + random() * 0.3))
      })
    return [
      ground('panel'),
      { fill: linear(135, [0, 'accent', 0.3], [1, 'accent', 0.08]), box: ALL },
      area(plain('accent', 0.4), `${branch(150, 900, 0.5)} ${branch(1330, 940, -0.3)}`),
      area(plain('accent', 0.75), `${branch(330, 960, 0.15)} ${branch(1500, 900, -0.6)}`),
      area(plain('ground', 0.85), branch(40, 980, 0.3)),
    ]
  },
  skyline: () => {
    const random = seededRandom(41)
    const blocks = (lowest: number, highest: number, least: number) => {
      let x = -20
      const paths: string[] = []
      const tops: (readonly [x: number, width: number, top: number])[] = []
      while (x < WIDTH) {
        const width = 60 + random() * 90
        const top = lowest - random() * (lowest - highest)
        paths.push(rectangle(x, top, width, HEIGHT - top))
        tops.push([x, width, top])
        x += width + least
      }
      return { path: paths.join(' '), tops }
    }
    const [far, near] = [blocks(600, 330, 0), blocks(760, 520, 8)]
    const windows = near.tops.flatMap(([x, width, top]) =>
      many(5, () => (random() < 0.6 ? rectangle(x + 12 + random() * (width - 34), top + 24 + random() * 180, 12, 18) : '')).filter((path) => path !== ''),
    )
    return [
      ground(),
      { fill: linear(180, [0, 'accent', 0.05], [0.7, 'accent', 0.8]), box: ALL },
      area(plain('ground', 0.55), far.path),
      area(plain('ground'), near.path),
      area(plain('panel', 0.8), windows.join(' ')),
    ]
  },
}

/** A background by its name, filling a canvas of any shape. */
export function drawBackground(name: DrawnBackground, title: string, canvas: Canvas, makeId: MakeId): NewBackground {
  const contents: Content[] = []
  const [across, down] = [canvas.widthPx / WIDTH, canvas.heightPx / HEIGHT]
  // Forms that must stay round are scaled alike both ways, about where they stand.
  const alike = Math.max(across, down)
  const layers = drawn[name]().map((form, index): Layer => {
    const { box, fill, path, stroke } = form
    const isRound = form.form === 'ellipse'
    const [width, height] = isRound ? [box.width * alike, box.height * alike] : [box.width * across, box.height * down]
    const [x, y] = [(box.x + box.width / 2) * across - width / 2, (box.y + box.height / 2) * down - height / 2]
    const base = newLayerBase(
      `${title} ${index + 1}`,
      { x: round(x), y: round(y), width: round(width), height: round(height), angleDeg: 0, fit: 'stretch' },
      makeId,
    )
    contents.push({ id: base.id, kind: 'shape', fill, outline: path === undefined ? null : { path, width: WIDTH, height: HEIGHT, stroke: stroke ?? null } })
    return { ...base, kind: 'shape', contentId: base.id, frame: { ...PLAIN_FRAME, form: form.form ?? 'box' } }
  })
  return { layer: { ...newGroupLayer(title, layers, canvas, makeId), part: 'background' }, contents }
}

/** Whether a name is one of a drawn background. */
export function isDrawnBackground(name: string): name is DrawnBackground {
  return (drawnBackgrounds as readonly string[]).includes(name)
}
