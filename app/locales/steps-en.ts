import type { StepKind, StepParams } from '../../core/steps/index.ts'

interface StepWords {
  readonly name: string
  readonly brief: string
  readonly purpose: string
  /** Of steps that take a value from a click in the picture. */
  readonly pick?: string
  readonly pickHint?: string
  readonly picked?: string
  readonly pickRefused?: string
  readonly options: object
}

/** Words of the steps: what each is for and what to touch first. `options` names the choices of a value. */
export const stepWords = {
  framing: {
    name: 'Framing',
    brief: 'Show a part of the camera picture',
    purpose: 'Shows a part of the camera picture. Zoom first; leave a little room above the head.',
    params: { zoom: 'Zoom', panX: 'Across', panY: 'Down', angle: 'Turn', mirror: 'Mirror' },
    options: {},
  },
  crop: {
    name: 'Crop',
    brief: 'Take cloth edges and lamp stands off',
    purpose: 'Takes cloth edges and lamp stands off. Hold Alt and drag an edge of the picture.',
    params: { left: 'Left', top: 'Top', right: 'Right', bottom: 'Bottom', feather: 'Feather' },
    options: {},
  },
  denoise: {
    name: 'Denoise',
    brief: 'Calm the grain of a dim room',
    purpose: 'Calms the grain of a dim room, which also steadies the key. Raise time first.',
    params: { time: 'Over time', space: 'In place', noise: 'Grain' },
    options: {},
  },
  balance: {
    name: 'Balance',
    brief: 'Make white white',
    purpose: 'Click something that should be grey; then fine-tune until skin looks right.',
    pick: 'Pick a grey',
    pickHint: 'Click something that should be grey or white. Escape leaves.',
    picked: 'Balanced for that grey',
    pickRefused: 'That colour is too dark or too strong to be a grey. Click something paler.',
    params: { temperature: 'Warmth', tint: 'Tint' },
    options: {},
  },
  tone: {
    name: 'Exposure and tone',
    brief: 'Lighter, darker, softer',
    purpose: 'Raise exposure first, shadows if the window is behind you; the rest only a little.',
    params: {
      exposure: 'Exposure',
      shadows: 'Shadows',
      highlights: 'Highlights',
      contrast: 'Contrast',
      pivot: 'Pivot',
      gamma: 'Gamma',
      lift: 'Lift',
      brightness: 'Brightness',
    },
    options: {},
  },
  colour: {
    name: 'Colour',
    brief: 'Stronger or weaker colours',
    purpose: 'Makes colours stronger or weaker. Leave hue alone unless skin looks wrong.',
    params: { saturation: 'Saturation', hue: 'Hue' },
    options: {},
  },
  chromaKey: {
    name: 'Coloured cloth',
    brief: 'Make a green or blue cloth clear',
    purpose: 'Makes the cloth clear. Let it be found for you, then look at the matte.',
    pick: 'Pick backdrop',
    pickHint: 'Click the cloth in the picture, a little away from the presenter. Escape leaves.',
    picked: 'Backdrop set to {colour}',
    pickRefused: 'That colour can not be keyed. Click the cloth.',
    params: {
      colour: 'Backdrop',
      tolerance: 'Tolerance',
      softness: 'Softness',
      spill: 'Spill',
      backdrop: 'Cloth is',
      surface: 'Fitted cloth',
      plate: 'Empty cloth',
    },
    options: { backdrop: { plain: 'Even', fitted: 'Fitted', plate: 'Measured' } },
  },
  colourKey: {
    name: 'Any colour',
    brief: 'Make one colour clear, a white wall too',
    purpose: 'Makes one colour clear, a white wall too. Pick it; raise tight until the wall is gone, then wide.',
    pick: 'Pick colour',
    pickHint: 'Click the colour that should vanish. Escape leaves.',
    picked: 'Colour set to {colour}',
    pickRefused: 'That colour can not be keyed. Click another.',
    params: { colour: 'Colour', tight: 'Tight', wide: 'Wide' },
    options: {},
  },
  lumaKey: {
    name: 'Brightness key',
    brief: 'Make dark or bright parts clear',
    purpose: 'Makes dark or bright parts clear. Click the part that should vanish.',
    pick: 'Pick brightness',
    pickHint: 'Click the dark or bright part that should vanish. Escape leaves.',
    picked: 'Brightness set',
    pickRefused: 'That can not be keyed. Click another place.',
    params: { from: 'From', to: 'To', softness: 'Softness' },
    options: {},
  },
  matteEdge: {
    name: 'Matte edge',
    brief: 'Clean the edge that a key left',
    purpose: 'Cleans what the key left: faint parts go, nearly solid ones fill, and detail brings hair back.',
    params: { black: 'Clear below', white: 'Solid above', detail: 'Detail', choke: 'Choke', feather: 'Feather', specks: 'Specks', holes: 'Holes' },
    options: {},
  },
  spill: {
    name: 'Spill',
    brief: 'Take the cloth’s light off hair and shoulders',
    purpose: 'Takes the cloth’s light off hair and shoulders. Lower reach if yellow or blue clothes turn dull.',
    pick: 'Pick backdrop',
    pickHint: 'Click the cloth in the picture. Escape leaves.',
    picked: 'Spill colour set to {colour}',
    pickRefused: 'That colour casts no spill. Click the cloth.',
    params: { colour: 'Backdrop', amount: 'Amount', reach: 'Reach', replace: 'Replace by', light: 'New light', keepLuma: 'Keep brightness' },
    options: { replace: { neutral: 'Grey', backdrop: 'New light', edge: 'Own colour' } },
  },
  room: {
    name: 'Behind you',
    brief: 'Without a cloth: soften, hide or replace the room',
    purpose: 'Finds you without a cloth. Soften the room, hide it, or put a picture there.',
    params: { effect: 'The room is', softness: 'Softness', edge: 'Edge', input: 'In its place' },
    options: { effect: { asIs: 'As it is', softened: 'Softened', hidden: 'Hidden', replaced: 'Replaced' } },
  },
  look: {
    name: 'Look',
    brief: 'Give the picture a mood',
    purpose: 'Gives the picture a mood. Choose one and lower its amount.',
    params: { look: 'Look', amount: 'Amount' },
    options: {},
  },
  sharpen: {
    name: 'Sharpen',
    brief: 'Make fine detail crisper',
    purpose: 'Makes fine detail crisper. A little is plenty; too much breaks the picture.',
    params: { amount: 'Amount', radius: 'Radius', threshold: 'Threshold' },
    options: {},
  },
} as const satisfies {
  readonly [K in StepKind]: StepWords & { readonly params: { readonly [P in keyof StepParams<K>]?: string } }
}

/** Names of our own looks. */
export const lookWords = {
  morningTea: 'Morning tea',
  windowSeat: 'Window seat',
  beeswax: 'Beeswax',
  meadow: 'Meadow',
  sloeBerry: 'Sloe berry',
  lateTrain: 'Late train',
  chalk: 'Chalk',
  linen: 'Linen',
  harvest: 'Harvest',
  newsprint: 'Newsprint',
  inkwell: 'Inkwell',
  sepia: 'Old sepia',
  duskTwoTone: 'Dusk pair',
  mossTwoTone: 'Moss pair',
} as const

/** Names of the stand-in cameras, by what is before them. */
export const standinWords = {
  cloth: 'Presenter before green cloth',
  evenCloth: 'Evenly lit green cloth',
  unevenCloth: 'Green cloth lit from one side',
  creasedCloth: 'Creased green cloth',
  noisyCloth: 'Green cloth, grainy picture',
  blueCloth: 'Blue cloth',
  heavySpill: 'Green cloth, much spill',
  warmLight: 'Green cloth, warm lamps',
  dimLight: 'Green cloth, too dark',
  darkNoisyCloth: 'Green cloth, nearly dark, strong grain',
  whiteWall: 'White wall',
  untidyRoom: 'Untidy room',
  table: 'Table from above',
} as const
