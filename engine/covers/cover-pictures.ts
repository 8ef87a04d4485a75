// What stands in a cover for pictures that only a presenter can give: a person for a camera, a window for a screen, a film for a clip.
import { parseHex } from '../../core/colour/hex.ts'
import { outlinePicture } from '../../core/outline/outline-picture.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'

export type CoverPicture = 'person' | 'window' | 'film'

interface Drawing {
  readonly data: string
  readonly boxWidth: number
  readonly boxHeight: number
  readonly colour: string
  readonly opacity: number
  /** What is seen where it is cut out; null: what is behind it. */
  readonly ground: string | null
}

const DRAWINGS: Readonly<Record<CoverPicture, Drawing>> = {
  // Shoulders and head.
  person: {
    data:
      'M290 720c6-96 40-132 118-152l146-40c22-8 32-22 32-46v-34h108v34c0 24 10 38 32 46l146 40c78 20 112 56 118 152z' +
      'M640 110c96 0 152 66 156 170 4 92-8 150-40 172-26 16-54 2-64-32-30 32-74 32-104 0-10 34-38 48-64 32-32-22-44-80-40-172 4-104 60-170 156-170z',
    boxWidth: 1280,
    boxHeight: 720,
    // Seen on dark walls and light ones.
    colour: '#6c7c74',
    opacity: 0.9,
    ground: null,
  },
  // A page with a heading, two boxes and lines cut out of it.
  window: {
    data:
      'M0 0h1280v800h-1280z' +
      'M60 70v34h380v-34z' +
      'M60 170v200h540v-200zM680 170v200h540v-200z' +
      'M60 440v24h1160v-24zM60 520v24h1160v-24zM60 600v24h1160v-24zM60 680v24h760v-24z',
    boxWidth: 1280,
    boxHeight: 800,
    colour: '#f1f3ee',
    opacity: 1,
    ground: '#c3cec7',
  },
  film: { data: 'M0 0h1280v720h-1280zM560 250v220l190-110z', boxWidth: 1280, boxHeight: 720, colour: '#4c6259', opacity: 1, ground: '#c3cec7' },
}

const drawn = new Map<CoverPicture, RgbaPicture>()

/** The picture, half as large as its drawing's box; drawn once. */
export function coverPicture(name: CoverPicture): RgbaPicture {
  let picture = drawn.get(name)
  if (picture === undefined) {
    const { data, boxWidth, boxHeight, colour, opacity, ground } = DRAWINGS[name]
    const fill = { kind: 'plain', colour, opacity } as const
    picture = outlinePicture({ data, boxWidth, boxHeight, padPx: 0, fill, stroke: null }, boxWidth / 2, boxHeight / 2)
    if (ground !== null) putOver(picture.data, ground)
    drawn.set(name, picture)
  }
  return picture
}

/** Straight colours over a ground that hides what is behind. */
function putOver(data: Uint8Array | Uint8ClampedArray, ground: string): void {
  const under = parseHex(ground).map((share) => share * 255)
  for (let at = 0; at < data.length; at += 4) {
    const share = data[at + 3]! / 255
    for (let channel = 0; channel < 3; channel += 1) data[at + channel] = Math.round(data[at + channel]! * share + under[channel]! * (1 - share))
    data[at + 3] = 255
  }
}
