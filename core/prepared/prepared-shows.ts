// Shows to start from: scenes, graphics, backgrounds and transitions for an occasion, in the presenter's colours. Each is an ordinary show.
import { drawBackground, type DrawnBackground } from '../backgrounds/drawn.ts'
import { setBackground } from '../backgrounds/set-background.ts'
import type { GraphicFamily } from '../graphics/families.ts'
import { makeGraphic, USUAL_KEYS, type GraphicKind, type GraphicWords } from '../graphics/make-graphic.ts'
import { inputIdOf } from '../layers/index.ts'
import { isTextItem } from '../layers/text.ts'
import { layersOf } from '../layers/tree.ts'
import { showOf, type FirstScene, type FirstWords, type Recipe, type ShowDevices } from '../layout/arrange/first-show.ts'
import type { MakeId } from '../random/make-id.ts'
import { addContents } from '../show/contents.ts'
import { addScene, removeInput, setPresenter } from '../show/edits.ts'
import { setSceneTransition, setUsualTransition } from '../show/show-transitions.ts'
import { fromShow } from '../style/style-names.ts'
import { setStyle, type ShowStyle } from '../show/style.ts'
import type { Show } from '../show/show.ts'
import { usualTransitions, type Transition } from '../transitions/index.ts'

export const occasions = ['class', 'standUp', 'interview', 'watch', 'webinar'] as const
export type Occasion = (typeof occasions)[number]

export interface PreparedWords {
  readonly first: FirstWords
  readonly graphics: GraphicWords
  readonly backgrounds: Readonly<Record<DrawnBackground, string>>
}

/** What of the presenter a show begins with. */
export interface PreparedFor {
  readonly devices: ShowDevices
  readonly style: Partial<ShowStyle>
  readonly presenter: Partial<Show['presenter']>
}

interface Occasional {
  readonly family: GraphicFamily
  /** In the order of the running: the first goes on air. Each in front of its background; without one, in front of nothing. */
  readonly scenes: readonly (Recipe & { readonly background?: DrawnBackground })[]
  readonly graphics: readonly GraphicKind[]
  readonly usual: Transition
  /** Of scenes that come otherwise. */
  readonly transitions?: Readonly<Partial<Record<FirstScene, Transition>>>
}

const quick = (transition: Transition, durationMs: number): Transition => ({ ...transition, durationMs })
const { cut, dissolve, glide, push, dip } = usualTransitions
const YOU = ['wall', 'camera'] as const
const YOU_AND_SCREEN = ['wall', 'camera', 'screen'] as const
const SCREEN_AND_YOU = ['wall', 'screen', 'camera'] as const

const prepared: Readonly<Record<Occasion, Occasional>> = {
  class: {
    family: 'ruled',
    scenes: [
      { name: 'welcome', parts: YOU, background: 'shelf' },
      { name: 'beside', parts: YOU_AND_SCREEN, layout: 'third', background: 'panes' },
      { name: 'shoulder', parts: YOU_AND_SCREEN, layout: 'shoulder', background: 'panes' },
      { name: 'questions', parts: YOU, background: 'leaves' },
      { name: 'soon', parts: ['wall', 'backSoon'], background: 'graph' },
    ],
    graphics: ['nameStrip', 'agenda', 'countdown'],
    usual: quick(glide, 500),
    transitions: { soon: quick(dissolve, 600) },
  },
  standUp: {
    family: 'block',
    scenes: [
      { name: 'alone', parts: YOU, background: 'slats' },
      { name: 'board', parts: SCREEN_AND_YOU, layout: 'cornerBottom', background: 'slats' },
    ],
    graphics: ['nameStrip', 'agenda', 'clock'],
    usual: cut,
  },
  interview: {
    family: 'open',
    scenes: [
      { name: 'welcome', parts: YOU, background: 'glow' },
      { name: 'guestAndYou', parts: YOU_AND_SCREEN, layout: 'frames', background: 'folds' },
      { name: 'guestAlone', parts: ['screen'] },
      { name: 'thanks', parts: ['wall', 'thanks'], background: 'dusk' },
    ],
    graphics: ['nameStrip', 'title', 'quote'],
    usual: quick(dissolve, 400),
    transitions: { guestAndYou: quick(push, 600) },
  },
  watch: {
    family: 'card',
    scenes: [
      { name: 'alone', parts: YOU, background: 'skyline' },
      { name: 'film', parts: SCREEN_AND_YOU, layout: 'cornerBottom', background: 'skyline' },
      { name: 'soon', parts: ['wall', 'backSoon'], background: 'hills' },
    ],
    graphics: ['caption', 'countdown', 'title'],
    usual: quick(dip, 900),
  },
  webinar: {
    family: 'card',
    scenes: [
      { name: 'soon', parts: ['wall', 'backSoon'], background: 'ripples' },
      { name: 'welcome', parts: YOU, background: 'dunes' },
      { name: 'beside', parts: YOU_AND_SCREEN, layout: 'third', background: 'arches' },
      { name: 'corner', parts: SCREEN_AND_YOU, layout: 'cornerBottom', background: 'arches' },
      { name: 'questions', parts: YOU, background: 'leaves' },
      { name: 'thanks', parts: ['wall', 'thanks'], background: 'dusk' },
    ],
    graphics: ['nameStrip', 'title', 'banner', 'countdown', 'quote'],
    usual: quick(dissolve, 500),
    transitions: { beside: quick(glide, 600), corner: quick(glide, 600) },
  },
}

/** A show for an occasion. The feed starts with the first scene. */
export function preparedShow(name: string, occasion: Occasion, words: PreparedWords, { devices, style, presenter }: PreparedFor, makeId: MakeId): Show {
  const { scenes, family, graphics, usual, transitions } = prepared[occasion]
  const bare = inShowColours(setPresenter(setStyle(showOf(name, scenes, words.first, makeId, devices), style), presenter))
  const behind = scenes.reduce((show, { background }, index) => {
    if (background === undefined) return show
    return setBackground(show, show.scenes[index]!.id, drawBackground(background, words.backgrounds[background], show.canvas, makeId))
  }, bare)
  const moving = scenes.reduce(
    (show, scene, index) => {
      const transition = transitions?.[scene.name]
      return transition === undefined ? show : setSceneTransition(show, show.scenes[index]!.id, transition)
    },
    setUsualTransition(behind, usual),
  )
  const dressed = graphics.reduce((show, kind) => {
    const { graphic, contents } = makeGraphic({ kind, family }, words.graphics, show.canvas, makeId)
    return addContents(addScene(show, { ...graphic, graphic: { key: USUAL_KEYS[kind] } }), contents)
  }, withoutUnusedWalls(moving))
  const drawn = [...new Set(scenes.flatMap(({ background }) => background ?? []))]
  return { ...dressed, favourites: drawn.map((background) => ({ type: 'drawn', name: background })) }
}

/** Texts on cards follow the colours of the show, in the middle of their plates. */
function inShowColours(show: Show): Show {
  return {
    ...show,
    contents: show.contents.map((content) => {
      if (!isTextItem(content)) return content
      const { blocks, plate } = content.text
      const coloured = blocks.map((block) => ({ ...block, colour: fromShow('onAccent') }))
      const onPlate = plate === null ? null : { ...plate, colour: fromShow('accent'), accent: null }
      return { ...content, text: { ...content.text, family: fromShow('head'), align: 'centre' as const, blocks: coloured, plate: onPlate } }
    }),
  }
}

/** Backgrounds took the place of the walls that scenes were made with. */
function withoutUnusedWalls(show: Show): Show {
  const used = new Set(show.scenes.flatMap(layersOf).map(inputIdOf))
  return show.inputs.filter(({ id }) => !used.has(id)).reduce((now, { id }) => removeInput(now, id), show)
}
