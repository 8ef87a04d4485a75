// Everything that can be done by command, each once: its keys, its picture, when it can be done and what it does. Buttons, menus, keys, the list
// of keys and the palette read it. A new one is an entry here, and its words in locales/en/commands.ts.
import {
  Captions,
  ChevronFirst,
  ChevronLast,
  ChevronLeft,
  ChevronRight,
  Coffee,
  EyeOff,
  FolderOpen,
  GalleryHorizontal,
  Hash,
  Keyboard,
  LayoutPanelTop,
  Maximize2,
  MicOff,
  PenLine,
  Play,
  Presentation,
  Radio,
  Redo2,
  Save,
  Search,
  SlidersHorizontal,
  Square,
  SunMoon,
  Trash2,
  Undo2,
  Video,
  Wallpaper,
  ZoomIn,
} from 'lucide-vue-next'
import type { Component } from 'vue'
import { layerCommands } from './layer-commands.ts'
import type { LayerTarget } from './layer-target.ts'
import { sceneCommands } from './scene-commands.ts'
import type { SceneTarget } from './scene-target.ts'
import type { useAirStore } from '../air/air.store.ts'
import type { useShowStore } from '../show/show.store.ts'
import type { useDrawingStore } from '../drawing/drawing.store.ts'
import type { useDecksStore } from '../decks/decks.store.ts'
import type { useVoiceStore } from '../sound/voice.store.ts'

export type CommandGroup = 'everywhere' | 'air' | 'go' | 'scene' | 'layer'

/** Why a command cannot run now. */
export type WhyNot =
  | 'nothingToUndo'
  | 'nothingToRedo'
  | 'noFeed'
  | 'noGraphics'
  | 'noFavourites'
  | 'feedRuns'
  | 'noShow'
  | 'noScene'
  | 'otherTab'
  | 'onAirAlready'
  | 'here'
  | 'locked'
  | 'nothingCopied'
  | 'unsupported'
  | 'noDeck'
  | 'notOnStage'
  | 'nothingDrawn'
  | 'firstPage'
  | 'lastPage'
  | 'notInBuild'
  | 'nothingSelected'
  | 'tooDeep'
  | 'startsAlready'
  | 'isTop'
  | 'isBottom'
  | 'onlyScene'
  | 'onAirStays'

/** What commands look at and act on. */
export interface Studio {
  readonly show: ReturnType<typeof useShowStore>
  readonly air: ReturnType<typeof useAirStore>
  readonly decks: ReturnType<typeof useDecksStore>
  readonly drawing: ReturnType<typeof useDrawingStore>
  readonly voice: ReturnType<typeof useVoiceStore>
  /** The selected layers; null away from Build. */
  readonly layers: LayerTarget | null
  /** The scene on the stage, or that of an open menu; null away from Build. */
  readonly scene: SceneTarget | null
  /** The page that is seen. */
  readonly page: string
  readonly goTo: (page: 'bench' | 'build' | 'devices' | 'shows') => void
  readonly openDialog: (which: 'palette' | 'keys' | 'graphics' | 'backgrounds' | 'slides') => void
  readonly undo: () => void
  readonly redo: () => void
  readonly switchTheme: () => void
  readonly keepDrawing: () => void
  /** Puts the scene on the stage in front of the next favourite background. */
  readonly nextBackground: () => void
}

export interface CommandEntry {
  readonly group: CommandGroup
  readonly icon: Component
  /** Unless the presenter changes them; the first is the one that is shown. As tinykeys writes them. */
  readonly keys: readonly string[]
  /** Whether menus and the palette offer it now; if not said, always. */
  readonly isFor?: (studio: Studio) => boolean
  /** Reasons why it cannot run; the first that holds is told. */
  readonly whyNot: (studio: Studio) => readonly (WhyNot | false)[]
  readonly run: (studio: Studio) => void
  /** In menus: words over it that begin a new part, and a second line. Keys of the catalogue. */
  readonly heading?: string
  readonly detail?: string
}

const always = () => []
/** The scene of an open menu, or the one that is chosen, on whatever page. */
const sceneIdOf = ({ scene, show }: Studio) => scene?.sceneId ?? show.sceneId
const page = (name: 'bench' | 'build' | 'devices', icon: Component): CommandEntry => ({
  group: 'go',
  icon,
  keys: [],
  whyNot: ({ show, page: here }) => [show.showId === null && 'noShow', here === name && 'here'],
  run: ({ goTo }) => goTo(name),
})

/** Turning the deck that is on air or on the stage; its keys are the page's own where there is none. */
const turning = (icon: Component, keys: readonly string[], by: number): CommandEntry => ({
  group: 'air',
  icon,
  keys,
  isFor: ({ decks }) => decks.current !== null,
  whyNot: ({ decks: { current } }) => [
    current === null && 'noDeck',
    by < 0 && current?.index === 0 && 'firstPage',
    by > 0 && current?.next === null && 'lastPage',
  ],
  run: ({ decks }) => decks.turn(by),
})

export const commandList = {
  undo: {
    group: 'everywhere',
    icon: Undo2,
    keys: ['$mod+KeyZ'],
    whyNot: ({ show, drawing }) => [show.undoLabel === null && !(drawing.isOn && drawing.canUndo) && 'nothingToUndo'],
    // While the pen is in hand, what it did comes first.
    run: ({ undo, drawing }) => (drawing.isOn && drawing.canUndo ? drawing.undo() : undo()),
  },
  redo: {
    group: 'everywhere',
    icon: Redo2,
    keys: ['$mod+Shift+KeyZ', 'Control+KeyY'],
    whyNot: ({ show, drawing }) => [show.redoLabel === null && !(drawing.isOn && drawing.canRedo) && 'nothingToRedo'],
    run: ({ redo, drawing }) => (drawing.isOn && drawing.canRedo ? drawing.redo() : redo()),
  },
  palette: { group: 'everywhere', icon: Search, keys: ['$mod+KeyK'], whyNot: always, run: ({ openDialog }) => openDialog('palette') },
  keys: { group: 'everywhere', icon: Keyboard, keys: ['?', 'Shift+?'], whyNot: always, run: ({ openDialog }) => openDialog('keys') },
  theme: { group: 'everywhere', icon: SunMoon, keys: [], whyNot: always, run: ({ switchTheme }) => switchTheme() },
  mute: { group: 'air', icon: MicOff, keys: ['KeyM'], whyNot: always, run: ({ voice }) => voice.toggleMute() },
  card: { group: 'air', icon: Coffee, keys: ['Digit0'], whyNot: ({ air }) => [!air.isFeedOn && 'noFeed'], run: ({ air }) => air.toggleCard() },
  hideGraphics: {
    group: 'air',
    icon: EyeOff,
    keys: ['KeyH'],
    whyNot: ({ air }) => [!air.graphics.isAnyShown && 'noGraphics'],
    run: ({ air }) => air.graphics.hideAll(),
  },
  nextPage: turning(ChevronRight, ['PageDown', 'ArrowRight'], 1),
  previousPage: turning(ChevronLeft, ['PageUp', 'ArrowLeft'], -1),
  firstPage: turning(ChevronFirst, [], -1000),
  lastPage: turning(ChevronLast, [], 1000),
  goToPage: {
    group: 'air',
    icon: Hash,
    keys: ['KeyJ'],
    isFor: ({ decks }) => decks.current !== null,
    whyNot: ({ decks, page: here }) => [decks.current === null && 'noDeck', here !== 'build' && 'notInBuild'],
    run: ({ decks }) => (decks.isAskingPage = true),
  },
  fillPage: {
    group: 'air',
    icon: Maximize2,
    keys: ['KeyF'],
    isFor: ({ decks }) => decks.current !== null,
    whyNot: ({ air, decks }) => [!air.isFeedOn && 'noFeed', decks.layerOnAir === null && 'noDeck'],
    run: ({ air, decks }) => air.focus.toggleFill(decks.layerOnAir!),
  },
  lookCloser: {
    group: 'air',
    icon: ZoomIn,
    keys: ['KeyZ'],
    whyNot: ({ air, page: here, show }) => [
      !air.isFeedOn && 'noFeed',
      !air.focus.isClose && here !== 'build' && 'notInBuild',
      !air.focus.isClose && air.onAirId !== show.sceneId && 'notOnStage',
    ],
    run: ({ air }) => air.focus.toggleCloser(),
  },
  draw: {
    group: 'air',
    icon: PenLine,
    keys: ['KeyD'],
    whyNot: ({ page: here, show }) => [here !== 'build' && 'notInBuild', show.sceneId === null && 'noScene'],
    run: ({ drawing }) => (drawing.isOn = !drawing.isOn),
  },
  clearDrawing: {
    group: 'air',
    icon: Trash2,
    keys: [],
    whyNot: ({ drawing }) => [!drawing.isAnyDrawn && 'nothingDrawn'],
    run: ({ drawing }) => drawing.clear(),
  },
  keepDrawing: {
    group: 'air',
    icon: Save,
    keys: [],
    whyNot: ({ drawing, show }) => [!drawing.isAnyDrawn && 'nothingDrawn', show.isStopped() && 'locked'],
    run: ({ keepDrawing }) => keepDrawing(),
  },
  addSlides: {
    group: 'go',
    icon: Presentation,
    keys: [],
    whyNot: ({ page: here }) => [here !== 'build' && 'notInBuild'],
    run: ({ openDialog }) => openDialog('slides'),
  },
  addGraphic: {
    group: 'go',
    icon: Captions,
    keys: [],
    whyNot: ({ page: here }) => [here !== 'build' && 'notInBuild'],
    run: ({ openDialog }) => openDialog('graphics'),
  },
  chooseBackground: {
    group: 'scene',
    icon: Wallpaper,
    keys: [],
    whyNot: ({ page: here, show }) => [here !== 'build' && 'notInBuild', show.isStopped() && 'locked'],
    run: ({ openDialog }) => openDialog('backgrounds'),
  },
  nextBackground: {
    group: 'scene',
    icon: GalleryHorizontal,
    keys: [],
    whyNot: ({ page: here, show }) => [here !== 'build' && 'notInBuild', show.isStopped() && 'locked', show.show?.favourites.length === 0 && 'noFavourites'],
    run: ({ nextBackground }) => nextBackground(),
  },
  startFeed: {
    group: 'air',
    icon: Play,
    keys: [],
    whyNot: ({ air, show }) => [
      !air.canFeed && 'unsupported',
      air.isFeedOn && 'feedRuns',
      show.showId === null && 'noShow',
      !show.isEditor && 'otherTab',
      show.sceneId === null && 'noScene',
    ],
    run: ({ air }) => air.startFeed(),
  },
  stopFeed: { group: 'air', icon: Square, keys: [], whyNot: ({ air }) => [!air.isFeedOn && 'noFeed'], run: ({ air }) => air.stopFeed() },
  takeScene: {
    group: 'air',
    icon: Radio,
    keys: [],
    whyNot: (studio) => [
      sceneIdOf(studio) === null && 'noScene',
      !studio.air.isFeedOn && 'noFeed',
      !studio.show.isEditor && 'otherTab',
      studio.air.onAirId === sceneIdOf(studio) && 'onAirAlready',
    ],
    run: (studio) => studio.air.takeOnAir(sceneIdOf(studio)!),
  },
  goBench: page('bench', SlidersHorizontal),
  goBuild: page('build', LayoutPanelTop),
  goDevices: page('devices', Video),
  goShows: { group: 'go', icon: FolderOpen, keys: [], whyNot: ({ page: here }) => [here === 'shows' && 'here'], run: ({ goTo }) => goTo('shows') },
  ...sceneCommands,
  ...layerCommands,
} as const satisfies Readonly<Record<string, CommandEntry>>

export type CommandId = keyof typeof commandList
export const commandIds = Object.keys(commandList) as CommandId[]
