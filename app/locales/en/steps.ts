import type { StepKind, StepParams } from '../../../core/steps/index.ts'

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
    brief: 'Show part of the camera picture',
    purpose: 'Shows part of the camera picture. Zoom first, and leave a little room above the head.',
    params: { zoom: 'Zoom', panX: 'Pan X', panY: 'Pan Y', angle: 'Rotation', mirror: 'Mirror' },
    options: {},
  },
  crop: {
    name: 'Crop',
    brief: 'Remove cloth edges and lamp stands',
    purpose: 'Removes cloth edges and lamp stands. Hold Alt and drag an edge of the picture.',
    params: { left: 'Left', top: 'Top', right: 'Right', bottom: 'Bottom', feather: 'Feather' },
    options: {},
  },
  denoise: {
    name: 'Denoise',
    brief: 'Reduce grain in a dim room',
    purpose: 'Reduces grain in a dim room, which also steadies the key. Raise time first.',
    params: { time: 'Over time', space: 'In place', noise: 'Grain' },
    options: {},
  },
  balance: {
    name: 'Balance',
    brief: 'Correct the white balance',
    purpose: 'Click something that should be grey, then fine-tune until skin looks right.',
    pick: 'Pick a grey',
    pickHint: 'Click something that should be grey or white. Press Escape to cancel.',
    picked: 'Balanced for that grey',
    pickRefused: 'That colour is too dark or too strong for a grey. Click something paler.',
    params: { temperature: 'Warmth', tint: 'Tint' },
    options: {},
  },
  tone: {
    name: 'Exposure and tone',
    brief: 'Lighter, darker, softer',
    purpose: 'Raise exposure first, and shadows if a window is behind you. Use the rest sparingly.',
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
    purpose: 'Makes the cloth clear. Press “Key the cloth for me”, then check the matte.',
    pick: 'Pick backdrop',
    pickHint: 'Click the cloth, a little away from the presenter. Press Escape to cancel.',
    picked: 'Backdrop set to {colour}',
    pickRefused: 'That colour cannot be keyed. Click the cloth.',
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
    brief: 'Make one colour clear, such as a white wall',
    purpose: 'Makes one colour clear, such as a white wall. Pick it, raise core until the wall is gone, then range.',
    pick: 'Pick colour',
    pickHint: 'Click the colour to remove. Press Escape to cancel.',
    picked: 'Colour set to {colour}',
    pickRefused: 'That colour cannot be keyed. Click another.',
    params: { colour: 'Colour', tight: 'Core', wide: 'Range' },
    options: {},
  },
  lumaKey: {
    name: 'Brightness key',
    brief: 'Make dark or bright parts clear',
    purpose: 'Makes dark or bright parts clear. Click the part to remove.',
    pick: 'Pick brightness',
    pickHint: 'Click the dark or bright part to remove. Press Escape to cancel.',
    picked: 'Brightness set',
    pickRefused: 'That cannot be keyed. Click another place.',
    params: { from: 'From', to: 'To', softness: 'Softness' },
    options: {},
  },
  matteEdge: {
    name: 'Matte edge',
    brief: 'Clean up the edge of a key',
    purpose: 'Cleans up after the key. Faint parts go, nearly solid parts fill, and detail brings hair back.',
    params: { black: 'Clear below', white: 'Solid above', detail: 'Detail', choke: 'Choke', feather: 'Feather', specks: 'Specks', holes: 'Holes' },
    options: {},
  },
  spill: {
    name: 'Spill',
    brief: 'Remove cloth colour from hair and shoulders',
    purpose: 'Removes cloth colour from hair and shoulders. Lower reach if yellow or blue clothes turn dull.',
    pick: 'Pick backdrop',
    pickHint: 'Click the cloth. Press Escape to cancel.',
    picked: 'Spill colour set to {colour}',
    pickRefused: 'That colour casts no spill. Click the cloth.',
    params: { colour: 'Backdrop', amount: 'Amount', reach: 'Reach', replace: 'Replace with', light: 'New light', keepLuma: 'Keep brightness' },
    options: { replace: { neutral: 'Grey', backdrop: 'New light', edge: 'Own colour' } },
  },
  room: {
    name: 'Behind you',
    brief: 'Blur, hide or replace the room, without a cloth',
    purpose: 'Finds you without a cloth. Blur the room, hide it, or put a picture there.',
    params: { effect: 'Room', softness: 'Softness', edge: 'Edge', input: 'Replace with' },
    options: { effect: { asIs: 'Unchanged', softened: 'Blurred', hidden: 'Hidden', replaced: 'Replaced' } },
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
  cloth: 'Presenter, green cloth',
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
