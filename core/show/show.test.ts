import { newStep } from '../steps/treatment.ts'
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { allInfos, testShow } from '../../tests/support/shows.ts'
import { planFrame } from '../stage/plan-frame.ts'
import { steps } from '../steps/index.ts'
import { copyScene, newShow, newMicrophone } from './create.ts'
import {
  addScene,
  applyChain,
  addStep,
  changeTreatment,
  fitToCanvas,
  moveLayer,
  moveScene,
  placeLayer,
  moveStepHome,
  putSteps,
  removeScene,
  resetStep,
  setStepParams,
  switchStep,
  treatmentAt,
  updateScene,
} from './edits.ts'
import { migrations } from './migrations.ts'
import { readChain, readShow } from './migrate.ts'
import { chainSchema, issueLines, showSchema } from './schema.ts'
import type { Show, Step } from './show.ts'

const show = testShow()
const welcome = show.scenes[0]!
const home = { type: 'input', inputId: show.inputs[0]!.id } as const

function issuesOf(document: unknown): string[] {
  const result = showSchema.safeParse(document)
  return result.success ? [] : issueLines(result.error)
}

/** The show with one value replaced, by path. */
function withValue(path: readonly (string | number)[], value: unknown): unknown {
  const copy = structuredClone(show) as unknown as Record<string | number, never>
  const parent = path.slice(0, -1).reduce((object, key) => object[key]!, copy)
  parent[path.at(-1)!] = value as never
  return copy
}

describe('the show schema', () => {
  it('takes the demo show and a new show as they are', () => {
    expect(showSchema.parse(show)).toEqual(show)
    let count = 0
    const fresh = newShow('New', { scene: 'Scene 1', camera: 'Camera', wall: 'Wall' }, () => `i${(count += 1)}`)
    expect(showSchema.parse(fresh)).toEqual(fresh)
  })

  it.each([
    [['canvas', 'widthPx'], 10, 'canvas.widthPx: must be a number between 160 and 3840, got 10'],
    [['inputs', 0, 'treatment', 3, 'params', 'tolerance'], 1.4, 'inputs.0.treatment.3.params.tolerance: must be a number between 0 and 0.9, got 1.4'],
    [['inputs', 0, 'treatment', 3, 'params', 'tolerance'], 'much', 'inputs.0.treatment.3.params.tolerance: must be a number between 0 and 0.9, got "much"'],
    [['inputs', 1, 'asset'], '../../etc/passwd', 'inputs.1.asset: must be the SHA-256 of an uploaded file'],
    [['scenes', 0, 'layers', 0, 'inputId'], 'nobody', 'scenes.0.layers.0.inputId: must name an input of the show, got "nobody"'],
    [['scenes', 1, 'id'], show.scenes[0]!.id, `scenes.1.id: must be unique, "${show.scenes[0]!.id}" came twice`],
    [['canvas', 'frameRate'], 29.97, 'canvas.frameRate: must be a whole number, got 29.97'],
    [['scenes'], [], 'scenes: must hold at least one scene'],
  ])('names field, rule and what came: %j = %j', (path, value, line) => {
    expect(issuesOf(withValue(path, value))).toContain(line)
  })

  it('refuses unknown fields, so that a typing mistake is not lost in silence', () => {
    expect(issuesOf({ ...show, canvass: 1 }).join()).toContain('canvass')
  })

  it('takes a chain of every step with its defaults', () => {
    let count = 0
    const chain = steps.map((step) => newStep(step.kind, () => `s${(count += 1)}`))
    expect(chainSchema.parse({ format: 'green-room-chain', version: 2, steps: chain }).steps).toHaveLength(steps.length)
  })

  it('can be written as a JSON Schema', () => {
    expect(JSON.stringify(z.toJSONSchema(showSchema as unknown as z.ZodType, { unrepresentable: 'any' }))).toContain('tolerance')
  })
})

describe('migration', () => {
  /** The demo as version 3 saved it; the older ones held the same. */
  const savedByVersion3 = () => JSON.parse(readFileSync(new URL('../../tests/fixtures/show-v3.json', import.meta.url), 'utf8')) as Record<string, unknown>

  it('lifts version 0 and keeps what it holds', () => {
    const { microphone: _microphone, holdingCard: _holdingCard, ...old } = savedByVersion3()
    expect(readShow({ ...old, version: 0 })).toEqual({
      ...show,
      microphone: newMicrophone({ type: 'none' }),
      holdingCard: { title: 'Back in a moment', detail: '' },
    })
  })

  it('gives a show of before there was sound no microphone, rather than one that nobody asked for', () => {
    const { microphone: _microphone, ...silent } = savedByVersion3()
    const lifted = readShow({ ...silent, version: 2 })
    expect(lifted.microphone).toEqual(newMicrophone({ type: 'none' }))
    expect({ ...lifted, microphone: show.microphone }).toEqual(show)
  })

  it('lifts saturation out of the tones into a step of its own, on layers too, and in chain files', () => {
    const tone = { id: 't', kind: 'tone', on: true, params: { exposure: 0.2, contrast: 1, gamma: 1, saturation: 1.3 } }
    const old = { ...savedByVersion3(), version: 1 } as unknown as { inputs: { treatment: unknown[] }[]; scenes: { layers: { treatment: unknown[] }[] }[] }
    old.inputs[0]!.treatment = [tone]
    old.scenes[0]!.layers[0]!.treatment = [{ ...tone, params: { ...tone.params, saturation: 1 } }]
    const lifted = readShow(old)
    expect(lifted.inputs[0]!.treatment).toMatchObject([
      { id: 't', kind: 'tone', params: { exposure: 0.2, shadows: 0 } },
      { id: 't-colour', kind: 'colour', params: { saturation: 1.3, hue: 0 } },
    ])
    expect(lifted.scenes[0]!.layers[0]!.treatment).toHaveLength(1)
    expect(readChain({ format: 'green-room-chain', version: 1, steps: [tone] }).steps).toHaveLength(2)
    expect(() => readChain({ format: 'green-room-chain', version: 7, steps: [] })).toThrow('saved by a newer Green Room')
  })

  it('gives each layer of a show of before there were contents its own, also where scenes have layers of one id', () => {
    type Old = { scenes: { id: string; layers: { id: string; kind: string; text?: { blocks: { text: string }[] } }[] }[] }
    const old = savedByVersion3() as unknown as Old
    const [first] = old.scenes
    const again = (n: number, id: (layerId: string) => string) => ({
      ...structuredClone(first!),
      id: `again-${n}`,
      layers: structuredClone(first!.layers).map((layer) => {
        if (layer.text !== undefined) layer.text.blocks[0]!.text = `Words ${n}`
        return { ...layer, id: id(layer.id) }
      }),
    })
    old.scenes.push(
      again(1, (id) => id),
      again(2, (id) => `${id}-2`),
      again(3, (id) => id),
    )
    const lifted = readShow(old)
    const ids = lifted.contents.map(({ id }) => id)
    expect(new Set(ids).size).toBe(ids.length)
    for (const n of [1, 2, 3]) {
      const layer = lifted.scenes.find(({ id }) => id === `again-${n}`)!.layers.find(({ kind }) => kind === 'text') as { contentId: string }
      const content = lifted.contents.find(({ id }) => id === layer.contentId)
      expect(content).toMatchObject({ kind: 'text', text: { blocks: expect.arrayContaining([expect.objectContaining({ text: `Words ${n}` })]) } })
    }
  })

  it('has a step from every version before the present one', () => expect(Object.keys(migrations)).toEqual(['0', '1', '2', '3', '4', '5', '6', '7', '8', '9']))

  it('says that a show from a newer Green Room is too new', () => {
    expect(() => readShow({ ...show, version: 11 })).toThrow('saved by a newer Green Room')
  })
})

describe('edits', () => {
  it('share what they do not change', () => {
    const edited = setStepParams(show, home, show.inputs[0]!.treatment[2]!.id, { exposure: 0.5 })
    expect(edited.scenes).toBe(show.scenes)
    expect(edited.inputs[1]).toBe(show.inputs[1])
    expect(treatmentAt(edited, home)[2]!.params).toMatchObject({ exposure: 0.5, contrast: 1.04 })
    expect(treatmentAt(show, home)[2]!.params).toMatchObject({ exposure: 0.15 })
  })

  it('that set a value of a step that is off switch it on; its defaults come back without that', () => {
    const stepId = show.inputs[0]!.treatment[2]!.id
    const off = switchStep(show, home, stepId, false)
    expect(treatmentAt(setStepParams(off, home, stepId, { exposure: 0.5 }), home)[2]!).toMatchObject({ on: true, params: { exposure: 0.5 } })
    expect(treatmentAt(resetStep(off, home, stepId), home)[2]!).toMatchObject({ on: false, params: { exposure: 0, contrast: 1 } })
  })

  it('keep every show valid: a chain of edits passes the schema', () => {
    const changes: ((current: Show) => Show)[] = [
      (current) => switchStep(current, home, show.inputs[0]!.treatment[0]!.id, false),
      (current) => moveLayer(current, welcome.id, welcome.layers[3]!.id, 0),
      (current) =>
        addScene(
          current,
          copyScene(
            welcome,
            'Copy',
            (() => {
              let count = 0
              return () => `copy${(count += 1)}`
            })(),
          ),
          1,
        ),
      (current) => moveScene(current, 'copy1', 3),
      (current) => fitToCanvas(current, welcome.id, welcome.layers[2]!.id, 'stretch'),
      (current) => changeTreatment(current, home, () => []),
    ]
    const result = changes.reduce((current, change) => change(current), show)
    expect(issuesOf(result)).toEqual([])
    expect(result.scenes[0]!.layers.map((layer) => layer.name)).toEqual(['Society mark', 'Apiary wall', 'Desk camera', 'Class title'])
  })

  it('a new step goes where the taught order has it, wherever the others stand', () => {
    const kinds = (current: Show) => treatmentAt(current, home).map((step) => step.kind)
    const added = addStep(
      show,
      home,
      newStep('colour', () => 'new'),
    )
    expect(kinds(added)).toEqual(['crop', 'balance', 'tone', 'colour', 'chromaKey', 'look', 'sharpen'])
    const empty = changeTreatment(show, home, () => [])
    expect(
      kinds(
        addStep(
          addStep(
            empty,
            home,
            newStep('chromaKey', () => 'a'),
          ),
          home,
          newStep('crop', () => 'b'),
        ),
      ),
    ).toEqual(['crop', 'chromaKey'])
    expect(
      kinds(
        addStep(
          show,
          home,
          newStep('chromaKey', () => 'second'),
        ),
      ),
    ).toEqual(['crop', 'balance', 'tone', 'chromaKey', 'chromaKey', 'look', 'sharpen'])
  })

  it('a step moves between everywhere and here only in one edit, and touches no other scene', () => {
    const layer = show.scenes[1]!.layers[1]!
    const here = { type: 'layer', sceneId: show.scenes[1]!.id, layerId: layer.id } as const
    const crop = treatmentAt(show, home)[0]!
    const moved = moveStepHome(show, home, here, crop.id)
    expect(treatmentAt(moved, home).map((step) => step.kind)).not.toContain('crop')
    expect(treatmentAt(moved, here)).toEqual([crop])
    expect(moved.scenes[0]).toBe(show.scenes[0])
    expect(treatmentAt(moveStepHome(moved, here, home, crop.id), home)).toEqual(treatmentAt(show, home))
    expect(moveStepHome(show, home, here, 'nobody')).toBe(show)
  })

  it('a crop made here only never changes another scene', () => {
    const infos = allInfos(show)
    const here = { type: 'layer', sceneId: show.scenes[1]!.id, layerId: show.scenes[1]!.layers[1]!.id } as const
    const crop = { ...newStep('crop', () => 'here'), params: { left: 40, top: 0, right: 0, bottom: 0, feather: 0 } } as Step
    const changed = addStep(show, here, crop)
    show.scenes.forEach((scene, index) => {
      const before = planFrame(show, { scene }, 0, infos).nodes
      const after = planFrame(changed, { scene: changed.scenes[index]! }, 0, infos).nodes
      if (index === 1) expect(after).not.toEqual(before)
      else expect(after).toEqual(before)
    })
  })

  it('found steps replace those of their kind in place; a chain is applied under new ids', () => {
    let count = 0
    const key = { ...newStep('chromaKey', () => 'k'), params: { ...newStep('chromaKey', () => 'k').params, tolerance: 0.11 } } as Step
    const put = putSteps(show, home, [key, newStep('spill', () => 's')])
    expect(treatmentAt(put, home).map((step) => step.kind)).toEqual(['crop', 'balance', 'tone', 'chromaKey', 'spill', 'look', 'sharpen'])
    expect(treatmentAt(put, home)[3]).toMatchObject({ id: treatmentAt(show, home)[3]!.id, params: { tolerance: 0.11 } })
    const applied = applyChain(show, home, [key], () => `n${(count += 1)}`)
    expect(treatmentAt(applied, home)).toMatchObject([{ id: 'n1', kind: 'chromaKey' }])
  })

  it('a placement dragged beyond its ranges ends there, and stays a valid show', () => {
    const layerId = welcome.layers[1]!.id
    const far = placeLayer(show, welcome.id, layerId, { x: 1e6, y: -1e6, width: 0, height: 1e9, angleDeg: 1000 })
    expect(far.scenes[0]!.layers[1]!.placement).toMatchObject({ x: 20_000, y: -20_000, width: 1, height: 20_000, angleDeg: 360 })
    expect(issuesOf(far)).toEqual([])
  })

  it('the last scene stays', () => {
    const one = { ...show, scenes: [welcome] }
    expect(removeScene(one, welcome.id)).toBe(one)
  })

  it('unknown ids change nothing', () => {
    expect(moveLayer(show, welcome.id, 'nobody', 0).scenes[0]!.layers).toEqual(welcome.layers)
    expect(updateScene(show, 'nowhere', (scene) => ({ ...scene, name: 'x' })).scenes).toEqual(show.scenes)
  })

  it('a copied scene shares no id with its original', () => {
    let count = 0
    const copy = copyScene(welcome, 'Copy', () => `new${(count += 1)}`)
    const ids = new Set([welcome.id, ...welcome.layers.map((layer) => layer.id)])
    expect([copy.id, ...copy.layers.map((layer) => layer.id)].some((id) => ids.has(id))).toBe(false)
  })
})
