// Stored shows carry a version. Each entry lifts a stored one by one version; they run in turn. What comes out is not checked.
import { newMicrophone } from './create.ts'
import { USUAL_TRANSITIONS } from './show-transitions.ts'
import { USUAL_STYLE } from './style.ts'
import { USUAL_LETTERS } from '../text/text-content.ts'

export type Loose = Record<string, unknown>

/** Lifts a stored from the version it is filed under to the next. */
export const migrations: Readonly<Record<number, (stored: Loose) => Loose>> = {
  // Version 0 was the sketch before the first release: one background colour, no holding card.
  0: (stored) => ({
    ...stored,
    version: 1,
    holdingCard: stored['holdingCard'] ?? { title: 'Back in a moment', detail: '' },
  }),
  // Version 1 kept saturation with the tones; it is a step of its own now.
  1: (stored) => ({
    ...stored,
    version: 2,
    inputs: upgradeEach(stored['inputs'], upgradeTreatment),
    scenes: upgradeEach(stored['scenes'], (scene) => ({ ...scene, layers: upgradeEach(scene['layers'], upgradeTreatment) })),
  }),
  // Version 2 had no sound.
  2: (stored) => ({ ...stored, version: 3, microphone: newMicrophone({ type: 'none' }) }),
  // Version 3 knew rounded boxes only, put over each other.
  3: (stored) => ({
    ...stored,
    version: 4,
    scenes: upgradeEach(stored['scenes'], (scene) => ({ ...scene, layers: upgradeEach(scene['layers'], upgradeLayer) })),
  }),
  // Version 4 kept what a layer shows in the layer, and nothing moved.
  4: (stored) => {
    const contents: Loose[] = []
    const taken = new Map<string, number>()
    const upgrade = (layer: Loose): Loose => withContent(layer, contents, taken, upgrade)
    return {
      ...stored,
      version: 5,
      scenes: upgradeEach(stored['scenes'], (scene) => ({ ...scene, layers: upgradeEach(scene['layers'], upgrade) })),
      contents,
      presenter: { name: '', title: '', countdownTo: null },
    }
  },
  // Version 5 showed all of every picture, and scenes were neither locked nor marked.
  5: (stored) => {
    const upgrade = (layer: Loose): Loose => ({
      ...layer,
      part: null,
      crop: null,
      ...(layer['kind'] === 'group' ? { layers: upgradeEach(layer['layers'], upgrade) } : {}),
    })
    const scenes = upgradeEach(stored['scenes'], (scene) => ({ ...scene, locked: false, mark: null, notes: '', layers: upgradeEach(scene['layers'], upgrade) }))
    return { ...stored, version: 6, scenes }
  },
  // Version 6 had no graphics, and no colours of its own.
  6: (stored) => ({ ...stored, version: 7, style: USUAL_STYLE, scenes: upgradeEach(stored['scenes'], (scene) => ({ ...scene, graphic: null })) }),
  // Version 7 cut from scene to scene.
  7: (stored) => ({
    ...stored,
    version: 8,
    transitions: USUAL_TRANSITIONS,
    favourites: [],
    scenes: upgradeEach(stored['scenes'], (scene) => ({ ...scene, transition: null })),
  }),
  // Version 8 did not know which clips are backgrounds of our own.
  8: (stored) => ({ ...stored, version: 9, inputs: upgradeEach(stored['inputs'], (input) => (input['kind'] === 'clip' ? { ...input, moving: null } : input)) }),
  // Version 9 had no decks, and no layers that stay at a page.
  9: (stored) => {
    const upgrade = (layer: Loose): Loose => ({
      ...layer,
      ...(layer['kind'] === 'input' ? { pageId: null } : {}),
      ...(layer['kind'] === 'group' ? { layers: upgradeEach(layer['layers'], upgrade) } : {}),
    })
    return { ...stored, version: 10, scenes: upgradeEach(stored['scenes'], (scene) => ({ ...scene, layers: upgradeEach(scene['layers'], upgrade) })) }
  },
}

/** A layer of version 5, with what it shows put among the contents under the layer's own id, or one like it where that is taken. */
function withContent(layer: Loose, contents: Loose[], taken: Map<string, number>, upgrade: (layer: Loose) => Loose): Loose {
  const { text, fill, ...rest } = { ...layer, entrance: null, exit: null } as Loose
  if (layer['kind'] === 'group') return { ...rest, layers: upgradeEach(layer['layers'], upgrade) }
  if (layer['kind'] !== 'text' && layer['kind'] !== 'shape') return rest
  let contentId = String(layer['id'])
  // As many are named after it already: counted, not looked for.
  const base = contentId
  while (taken.has(contentId)) {
    const count = (taken.get(base) ?? 1) + 1
    taken.set(base, count)
    contentId = `${base.slice(0, 36)}-${count}`
  }
  taken.set(contentId, 1)
  const shown = layer['kind'] === 'text' ? { text: isLoose(text) ? { ...USUAL_LETTERS, ...text } : text } : { fill }
  contents.push({ id: contentId, kind: layer['kind'], ...shown, ...(layer['kind'] === 'shape' ? { outline: null } : {}) })
  return { ...rest, contentId }
}

/** Whether a value has fields; what has none is left as it is, for the schema to name. */
export function isLoose(value: unknown): value is Loose {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
}

/** Applies `upgrade` to the entries of a list that have fields; anything that is no list stays as it is. */
function upgradeEach(value: unknown, upgrade: (entry: Loose) => unknown): unknown {
  return Array.isArray(value) ? value.map((entry: unknown) => (isLoose(entry) ? upgrade(entry) : entry)) : value
}

function upgradeLayer(layer: Loose): Loose {
  const { frame } = layer
  return { ...layer, blend: 'normal', frame: isLoose(frame) ? { form: 'box', border: null, shadow: null, ...frame } : frame }
}

function upgradeTreatment(owner: Loose): Loose {
  return Array.isArray(owner['treatment']) ? { ...owner, treatment: upgradeSteps(owner['treatment']) } : owner
}

/** Steps of version 1 as steps of version 2. */
export function upgradeSteps(steps: unknown): unknown {
  return Array.isArray(steps) ? steps.flatMap((step: unknown) => (isLoose(step) ? upgradeStep(step) : [step])) : steps
}

function upgradeStep(step: Loose): unknown[] {
  const { params } = step
  if (step['kind'] !== 'tone' || !isLoose(params) || params['saturation'] === undefined) return [step]
  const { saturation, ...rest } = params
  const tone = { ...step, params: rest }
  return saturation === 1 ? [tone] : [tone, { id: `${String(step['id'])}-colour`.slice(-40), kind: 'colour', on: step['on'], params: { saturation, hue: 0 } }]
}

/** The version that shows have now. */
export const CURRENT_VERSION = 10

/** A stored show of an earlier version as one of this; anything else as it is. */
export function upgradeShow(stored: unknown): unknown {
  let current = stored
  while (isLoose(current) && typeof current['version'] === 'number' && current['version'] < CURRENT_VERSION) {
    const upgrade = migrations[current['version']]
    if (upgrade === undefined) return current
    current = upgrade(current)
  }
  return current
}
