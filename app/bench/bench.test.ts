// Parts of the bench that show what they are given.
import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { defineComponent, h } from 'vue'
import { histogramOf, vectorscopeOf, waveformOf } from '../../core/scopes/scopes.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import { steps } from '../../core/steps/index.ts'
import { SURFACE_NUMBERS } from '../../core/matte/backdrop.ts'
import type { ParamSpec, ParamValue } from '../../core/steps/step.ts'
import type { Step } from '../../core/show/show.ts'
import type { Scopes } from '../../engine/protocol.ts'
import { stepWith } from '../../tests/support/steps.ts'
import { i18n } from '../i18n.ts'
import HistogramScope from './scopes/HistogramScope.vue'
import ScopeStrip from './scopes/ScopeStrip.vue'
import StepValues from './steps/StepValues.vue'
import { useStepWords } from './use-step-words.ts'

beforeEach(() => setActivePinia(createPinia()))
const plugins = () => ({ plugins: [i18n, createPinia()] })

/** What a composable gives inside a component. */
function inside<T>(use: () => T): T {
  let made: T | undefined
  mount(
    defineComponent({
      setup() {
        made = use()
        return () => h('i')
      },
    }),
    { global: plugins() },
  )
  return made!
}

describe('words of steps', () => {
  const words = inside(useStepWords)

  it('sum a step up by what is not usual, shares as percent', () => {
    expect(words.summaryOf(stepWith('tone', { exposure: 0.15, contrast: 1.04 }))).toBe('exposure 0.15\u202fst, contrast 1.04\u202f×')
    expect(words.summaryOf(stepWith('crop', { left: 13, right: 10 }))).toBe('left 13\u202f%, right 10\u202f%')
    expect(words.summaryOf(stepWith('chromaKey', { tolerance: 0.3 }))).toBe('tolerance 30\u202f%')
  })

  it('name looks and what becomes of the room', () => {
    expect(words.summaryOf(stepWith('look', { look: 'inkwell', amount: 0.6 }))).toBe('Inkwell, 60 %')
    expect(words.summaryOf(stepWith('look', { look: 'a'.repeat(64), amount: 1 }))).toMatch(/, 100 %$/)
    expect(words.summaryOf(stepWith('room', { effect: 'softened' }))).toBe('Blurred')
  })

  it('have a name and a purpose for every step', () => {
    for (const { kind } of steps) {
      expect(words.nameOf(kind)).not.toContain('steps.')
      expect(words.purposeOf(kind)).toMatch(/\.$/)
    }
  })
})

describe('StepValues', () => {
  const mountFor = (step: Step) => mount(StepValues, { props: { step, shownElsewhere: null }, global: { ...plugins(), stubs: { LookChooser: true } } })
  const labels = (step: Step) =>
    mountFor(step)
      .findAll('input[type=range]')
      .map((slider) => slider.attributes('aria-label'))

  it.each(steps.filter((step) => step.kind !== 'look').map((step) => [step.kind, step] as const))('has one control for each value of %s', (kind, step) => {
    const numbers = Object.values(step.params as Readonly<Record<string, ParamSpec>>).filter((spec) => spec.type === 'number')
    const shown = labels(stepWith(kind))
    expect(new Set(shown).size).toBe(shown.length)
    expect(shown.length).toBe(numbers.length)
  })

  it('leaves out what makes no difference now', () => {
    expect(labels(stepWith('room', { effect: 'softened' }))).toHaveLength(2)
    expect(labels(stepWith('room', { effect: 'hidden' }))).toHaveLength(1)
    expect(mountFor(stepWith('spill', { replace: 'neutral' })).html()).not.toContain('#c9d2cc')
  })

  it('shows that a cloth can be fitted and measured, and offers it once it was', () => {
    const offered = (params: Readonly<Record<string, ParamValue>>) =>
      mountFor(stepWith('chromaKey', params))
        .findAll('[role=radio]')
        .filter((choice) => choice.attributes('aria-disabled') !== 'true')
        .map((choice) => choice.text())
    expect(mountFor(stepWith('chromaKey')).text()).toContain('Fitted: press “Key the cloth for me” first.')
    expect(offered({})).toHaveLength(1)
    expect(offered({ plate: 'a'.repeat(64) })).toHaveLength(2)
    expect(offered({ plate: 'a'.repeat(64), surface: new Array<number>(SURFACE_NUMBERS).fill(0) })).toHaveLength(3)
  })

  it('says which value was set to what', async () => {
    const wrapper = mountFor(stepWith('sharpen'))
    await wrapper.findAll('input[type=range]')[0]!.setValue('120')
    const [name, value] = (wrapper.emitted('set') as [string, number][])[0]!
    expect(name).toBe('amount')
    expect(value).toBeCloseTo(1.2, 5)
  })
})

/** Half dark red, half white, wholly opaque. */
function picture(): RgbaPicture {
  const data = new Uint8Array(32 * 18 * 4)
  for (let i = 0; i < 32 * 18; i += 1) data.set(i % 32 < 16 ? [90, 20, 20, 255] : [255, 255, 255, 255], i * 4)
  return { format: 'rgba', widthPx: 32, heightPx: 18, data }
}

function scopesOf(key: Scopes['key']): Scopes {
  return {
    histogram: histogramOf(picture()),
    waveform: waveformOf(picture(), 32),
    vectorscope: vectorscopeOf(picture()),
    clipping: { black: 0, white: 0.5 },
    key,
  }
}

describe('the scope strip', () => {
  const figuresOf = (scopes: Scopes | null) => {
    const wrapper = mount(ScopeStrip, {
      props: { scopes, cloth: '#2bb552' },
      global: { ...plugins(), stubs: { HistogramScope: true, WaveformScope: true, VectorScope: true } },
    })
    return Object.fromEntries(
      ['fringe', 'seeThrough', 'veil', 'clipped'].map((id) => {
        const row = wrapper.get(`[data-testid=figure-${id}] button`)
        const word = row.find('[data-word]')
        const isMarked = word.exists() && word.text() === '· too much' && word.classes().includes('text-brass')
        return [id, { text: row.get('[data-figure]').text(), isMarked, words: row.text() }]
      }),
    )
  }

  it('shows dashes without a picture or a key', () => {
    expect(Object.values(figuresOf(null)).map(({ text }) => text)).toEqual(['–', '–', '–', '–'])
    expect(figuresOf(scopesOf(null))).toMatchObject({ fringe: { text: '–' }, clipped: { text: '50\u202f%', isMarked: true } })
  })

  it('marks figures that are worse than they should be', () => {
    const good = figuresOf(scopesOf({ fringe: 0.4, seeThrough: 0.0005, veil: 0.001, unsure: 0.02, presenter: 0.2 }))
    expect(good).toMatchObject({ fringe: { text: '0.4', isMarked: false }, seeThrough: { text: '0.1\u202f%', isMarked: false }, veil: { isMarked: false } })
    const bad = figuresOf(scopesOf({ fringe: 3.1, seeThrough: 0.02, veil: 0.2, unsure: 0.1, presenter: 0.2 }))
    expect(bad).toMatchObject({
      fringe: { text: '3.1', isMarked: true },
      seeThrough: { text: '2.0\u202f%', isMarked: true },
      veil: { text: '20\u202f%', isMarked: true },
    })
    expect(good['fringe']!.words.replace(/\s+/g, ' ')).toBe('Green edge 0.4 · good (up to 2)')
  })

  it('says that nobody is left instead of praising an empty picture', () => {
    const scopes = scopesOf({ fringe: 0, seeThrough: 0, veil: 0, unsure: 0, presenter: 0.0004 })
    const wrapper = mount(ScopeStrip, {
      props: { scopes, cloth: '#2bb552' },
      global: { ...plugins(), stubs: { HistogramScope: true, WaveformScope: true, VectorScope: true } },
    })
    expect(wrapper.get('[role=status]').text()).toBe('No one left in the picture')
    expect(figuresOf(scopes)).toMatchObject({ fringe: { text: '–' }, seeThrough: { text: '–' }, veil: { text: '–' } })
  })
})

describe('the histogram', () => {
  it('draws a shape for every channel and a line for luma, and none without a picture', () => {
    const paths = (histogram: Scopes['histogram'] | null) =>
      mount(HistogramScope, { props: { histogram }, global: plugins() })
        .findAll('path')
        .map((path) => path.attributes('d') ?? '')
        .filter((shape) => shape !== '')
    expect(paths(scopesOf(null).histogram)).toHaveLength(4)
    expect(paths(null)).toHaveLength(0)
  })
})
