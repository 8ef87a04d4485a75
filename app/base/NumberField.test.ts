import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import NumberField from './NumberField.vue'

function field(props: Partial<{ modelValue: number; min: number; max: number; step: number; unit: string }> = {}) {
  const wrapper = mount(NumberField, { props: { label: 'Exposure', modelValue: 0.5, min: -3, max: 3, step: 0.05, unit: 'st', ...props } })
  const values = () => (wrapper.emitted('update:modelValue') ?? []).map(([value]) => value)
  return { input: wrapper.get('input'), values }
}

describe('NumberField', () => {
  it('shows the number with its unit and says both to a screen reader', () => {
    const { input } = field()
    expect(input.element.value).toBe('0.5 st')
    expect(input.attributes()).toMatchObject({ role: 'spinbutton', 'aria-label': 'Exposure', 'aria-valuenow': '0.5', 'aria-valuemin': '-3' })
  })

  it.each([
    ['1.25', 1.25],
    ['1,25', 1.25],
    [' 2 st', 2],
    ['99', 3],
    ['-99', -3],
    ['0.513', 0.5],
  ])('takes "%s" as %d', async (typed, value) => {
    const { input, values } = field({ modelValue: 0 })
    await input.trigger('focus')
    await input.setValue(typed)
    await input.trigger('keydown', { key: 'Enter' })
    expect(values()).toEqual([value])
  })

  it('marks what is no number and leaves the value as it was', async () => {
    const { input, values } = field()
    await input.trigger('focus')
    await input.setValue('bright')
    expect(input.attributes('aria-invalid')).toBe('true')
    await input.trigger('blur')
    expect(values()).toEqual([])
    expect(input.element.value).toBe('0.5 st')
  })

  it('says nothing when it was only visited, or left at what it shows of a finer value', async () => {
    const { input, values } = field({ modelValue: 0.512, step: 0.05 })
    await input.trigger('focus')
    expect(input.attributes('data-undo')).toBe('show')
    await input.trigger('blur')
    await input.trigger('focus')
    await input.setValue('0.51')
    await input.trigger('keydown', { key: 'Enter' })
    expect(values()).toEqual([])
  })

  it('leaves Ctrl+Z to the show once what was typed is taken', async () => {
    const { input } = field()
    await input.trigger('focus')
    await input.setValue('2')
    expect(input.attributes('data-undo')).toBeUndefined()
    await input.trigger('keydown', { key: 'Enter' })
    expect(input.attributes('data-undo')).toBe('show')
  })

  it('steps with the arrow keys, ten at a time with Shift', async () => {
    const { input, values } = field()
    await input.trigger('keydown', { key: 'ArrowUp' })
    await input.trigger('keydown', { key: 'ArrowDown', shiftKey: true })
    expect(values()).toEqual([0.55, 0])
  })
})
