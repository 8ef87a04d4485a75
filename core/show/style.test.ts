import { describe, expect, it } from 'vitest'
import { testShow } from '../../tests/support/shows.ts'
import { newShapeLayer } from '../layers/shape.ts'
import { newTextLayer } from '../layers/text.ts'
import { planFrame } from '../stage/plan-frame.ts'
import { planParts } from '../stage/plan-parts.ts'
import { addContents } from './contents.ts'
import { newScene } from './create.ts'
import { addLayer, addScene, graphicsOf, moveScene, ownScenesOf, removeScene } from './edits.ts'
import { readShow } from './migrate.ts'
import { issueLines, showSchema } from './schema.ts'
import type { Content, Layer, Show } from './show.ts'
import { setStyle, styledShow, USUAL_STYLE } from './style.ts'

let count = 0
const makeId = () => `made-${(count += 1)}`

/** A scene with words, a gradient and a border, all in the colours given. */
function coloured(colours: { panel: string; ink: string; accent: string; head: string }): Show {
  count = 0
  const show = { ...testShow(), scenes: [newScene('Words', makeId)] }
  const text = newTextLayer('Name', 'Iva Kovač {show:ink}', show.canvas, makeId)
  const shape = newShapeLayer('Plate', 'box', show.canvas, makeId)
  const contents = [...text.contents, ...shape.contents].map((content) =>
    content.kind === 'text'
      ? {
          ...content,
          text: {
            ...content.text,
            family: colours.head,
            blocks: content.text.blocks.map((block) => ({ ...block, colour: colours.ink })),
            plate: { ...content.text.plate!, colour: colours.panel, accent: colours.accent },
          },
        }
      : {
          ...content,
          fill: {
            kind: 'linear',
            angleDeg: 90,
            stops: [
              { at: 0, colour: colours.panel, opacity: 1 },
              { at: 1, colour: colours.accent, opacity: 0.5 },
            ],
          },
        },
  ) as Content[]
  const bordered: Layer = { ...shape.layer, frame: { ...shape.layer.frame, border: { widthPx: 4, colour: colours.accent, opacity: 1, side: 'outside' } } }
  const filled = addContents(show, contents)
  return [bordered, text.layer].reduce((current, layer) => addLayer(current, current.scenes[0]!.id, layer), filled)
}

const NAMES = { panel: 'show:panel', ink: 'show:ink', accent: 'show:accent', head: 'show:head' }
const planOf = (show: Show) => {
  const { nodes, texts } = planFrame(show, { scene: show.scenes[0]! }, 0, new Map())
  return JSON.stringify([nodes, texts])
}

describe('the style of a show', () => {
  it('gives the same plan as its own values written out, and another when it changes', () => {
    const named = coloured(NAMES)
    expect(issueLines(showSchema.safeParse(named).error ?? ({ issues: [] } as never))).toEqual([])
    const { panel, ink, accent } = USUAL_STYLE.colours
    expect(planOf(named)).toBe(planOf(coloured({ panel, ink, accent, head: USUAL_STYLE.faces.head })))
    const red = setStyle(named, { colours: { accent: '#aa2211' }, faces: { head: 'Literata' } })
    expect(planOf(red)).toBe(planOf(coloured({ panel, ink, accent: '#aa2211', head: 'Literata' })))
  })

  it('leaves what a presenter types alone, however it reads', () => {
    expect(planOf(coloured(NAMES))).toContain('{show:ink}')
  })

  it('keeps what names none of it the same object, and gives the same result for the same part', () => {
    const show = testShow()
    expect(styledShow(show)).toBe(show)
    const named = coloured(NAMES)
    expect(styledShow(named)).toBe(styledShow(named))
    const later = { ...named, name: 'Another name' }
    expect(styledShow(later).contents).toBe(styledShow(named).contents)
  })

  it('is part of what a plan reads', () => {
    const show = coloured(NAMES)
    const next = setStyle(show, { colours: { ink: '#000000' } })
    expect(planParts(next, next.scenes[0]!)).not.toEqual(planParts(show, show.scenes[0]!))
  })

  it('is refused with a colour that is none, and says what may be written', () => {
    const wrong = setStyle(testShow(), { colours: { ink: 'blue' } })
    expect(issueLines(showSchema.safeParse(wrong).error!)).toEqual(['style.colours.ink: must be a colour written #rrggbb'])
    const unknown = coloured({ ...NAMES, ink: 'show:sky' })
    expect(issueLines(showSchema.safeParse(unknown).error!)[0]).toContain("one of the show's: show:ground, show:panel")
  })

  it('comes to shows of version 6, which had none, with what graphics they have: none', () => {
    const { style: _none, ...rest } = testShow()
    const old = { ...rest, version: 6, scenes: rest.scenes.map(({ graphic: _graphic, ...scene }) => scene) }
    expect(readShow(structuredClone(old))).toEqual({ ...testShow(), style: USUAL_STYLE })
  })
})

describe('graphics', () => {
  const graphic = (name: string) => ({ ...newScene(name, makeId), graphic: { key: null } })

  it('stay behind all scenes in the list, wherever they or scenes are put', () => {
    let show = addScene(addScene(testShow(), graphic('Strip')), graphic('Title'))
    const own = ownScenesOf(show).map(({ name }) => name)
    show = addScene(show, newScene('Late', makeId))
    expect(ownScenesOf(show).map(({ name }) => name)).toEqual([...own, 'Late'])
    const strip = graphicsOf(show)[0]!
    show = moveScene(show, strip.id, 0)
    show = moveScene(show, show.scenes[0]!.id, 99)
    expect(show.scenes.map(({ graphic: one }) => one !== null)).toEqual([...own, 'Late'].map(() => false).concat(true, true))
    expect(showSchema.safeParse(show).success).toBe(true)
    show = removeScene(show, strip.id)
    expect(graphicsOf(show).map(({ name }) => name)).toEqual(['Title'])
  })

  it('are no reason to let the last scene go', () => {
    const one = { ...testShow(), scenes: testShow().scenes.slice(0, 1) }
    const show = addScene(one, graphic('Strip'))
    expect(removeScene(show, show.scenes[0]!.id)).toBe(show)
    expect(removeScene(show, show.scenes[1]!.id).scenes).toHaveLength(1)
  })

  it('before scenes are refused', () => {
    const show = testShow()
    const first = { ...show, scenes: [graphic('Strip'), ...show.scenes] }
    expect(issueLines(showSchema.safeParse(first).error!)).toEqual([
      'scenes.0.graphic: must be null: a show begins with a scene, and graphics come after all scenes',
      'scenes.1: must come before the graphics',
    ])
  })
})
