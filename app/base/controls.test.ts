import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { i18n } from '../i18n.ts'
import SplitDivider from '../bench/SplitDivider.vue'
import ActionMenu from './ActionMenu.vue'
import ChoiceBar from './ChoiceBar.vue'
import ColourField from './ColourField.vue'
import InlineName from './InlineName.vue'
import SelectMenu from './SelectMenu.vue'
import SliderRow from './SliderRow.vue'
import ToggleSwitch from './ToggleSwitch.vue'

describe('SliderRow', () => {
  const props = { label: 'Gamma', modelValue: 1.4, min: 0.4, max: 2.5, step: 0.01, unit: '×', usual: 1 }
  it('moves, and goes back to the usual value on a double click', async () => {
    const wrapper = mount(SliderRow, { props })
    const slider = wrapper.get('input[type=range]')
    expect(slider.attributes('aria-label')).toBe('Gamma')
    await slider.setValue('2')
    await slider.trigger('dblclick')
    expect(wrapper.emitted('update:modelValue')).toEqual([[2], [1]])
  })
})

describe('SliderRow by keyboard', () => {
  const props = { label: 'Gamma', modelValue: 1.4, min: 0.4, max: 2.5, step: 0.01, unit: '×', usual: 1 }
  it('is one stop of the Tab key; a digit goes into the number, Enter takes it and comes back, Delete brings the usual value', async () => {
    const wrapper = mount(SliderRow, { props, attachTo: document.body })
    const slider = wrapper.get<HTMLInputElement>('input[type=range]')
    const number = wrapper.get<HTMLInputElement>('[role=spinbutton]')
    expect([slider.element.tabIndex, number.element.tabIndex]).toEqual([0, -1])
    slider.element.focus()
    await slider.trigger('keydown', { key: '2' })
    expect(document.activeElement).toBe(number.element)
    await number.setValue('2.2')
    await number.trigger('keydown', { key: 'Enter' })
    expect(document.activeElement).toBe(slider.element)
    await slider.trigger('keydown', { key: 'Delete' })
    expect(wrapper.emitted('update:modelValue')).toEqual([[2.2], [1]])
    wrapper.unmount()
  })
})

describe('SelectMenu', () => {
  it('is our own list box: opens, marks what is chosen, and gives what is pressed', async () => {
    const options = [
      { value: 'fit', label: 'Fit' },
      { value: 2, label: '200 %' },
      { value: 4, label: '400 %', isOff: true, detail: 'Not now' },
    ]
    const wrapper = mount(SelectMenu, { props: { modelValue: 'fit', label: 'Zoom', options }, attachTo: document.body })
    const button = wrapper.get('button')
    expect(button.attributes('aria-label')).toBe('Zoom: Fit')
    await button.trigger('click')
    const items = [...document.querySelectorAll<HTMLElement>('[role=option]')]
    expect(items.map((item) => [item.getAttribute('aria-selected'), item.getAttribute('aria-disabled')])).toEqual([
      ['true', null],
      ['false', null],
      ['false', 'true'],
    ])
    items[2]!.click()
    items[1]!.click()
    expect(wrapper.emitted('update:modelValue')).toEqual([[2]])
    wrapper.unmount()
  })
})

describe('ToggleSwitch', () => {
  it('is a switch with a name and says its new state', async () => {
    const wrapper = mount(ToggleSwitch, { props: { modelValue: true, label: 'Crop on' } })
    const button = wrapper.get('button')
    expect(button.attributes()).toMatchObject({ role: 'switch', 'aria-checked': 'true', 'aria-label': 'Crop on' })
    await button.trigger('click')
    expect(wrapper.emitted('update:modelValue')).toEqual([[false]])
  })
})

describe('ChoiceBar', () => {
  it('is a group of choices, one of them chosen', async () => {
    const choices = [
      { value: 'fit', label: 'Fit' },
      { value: 'fill', label: 'Fill' },
    ]
    const wrapper = mount(ChoiceBar, { props: { modelValue: 'fit', label: 'How it meets its box', choices } })
    expect(wrapper.get('[role=radiogroup]').attributes('aria-label')).toBe('How it meets its box')
    const [fit, fill] = wrapper.findAll('[role=radio]')
    expect(fit!.attributes('aria-checked')).toBe('true')
    await fill!.trigger('click')
    expect(wrapper.emitted('update:modelValue')).toEqual([['fill']])
  })
})

describe('ColourField', () => {
  it.each([
    ['#2BB552', ['#2bb552']],
    ['2bb552', ['#2bb552']],
    ['green', []],
    ['#123', []],
    ['#a87823', []],
  ])('takes the code "%s" as %j', async (typed, values) => {
    const wrapper = mount(ColourField, { props: { modelValue: '#a87823', label: 'Backdrop' } })
    const field = wrapper.get('input[type=text]')
    await field.trigger('focus')
    await field.setValue(typed)
    await field.trigger('keydown.enter')
    expect((wrapper.emitted('update:modelValue') ?? []).map(([value]) => value)).toEqual(values)
  })
})

describe('InlineName', () => {
  const props = { modelValue: 'Welcome', label: 'Name', isEditing: true }
  it.each([
    ['Enter', '  Opening  ', ['Opening']],
    ['Escape', 'Opening', []],
    ['Enter', '   ', []],
    ['Enter', 'Welcome', []],
  ])('on %s after "%s" gives %j', async (key, typed, names) => {
    const wrapper = mount(InlineName, { props })
    const field = wrapper.get('input')
    await field.setValue(typed)
    await field.trigger('keydown', { key })
    expect((wrapper.emitted('update:modelValue') ?? []).map(([name]) => name)).toEqual(names)
    expect(wrapper.emitted('done')).toHaveLength(1)
  })
})

describe('ActionMenu', () => {
  it('opens by keyboard, names its groups, and runs what is chosen', async () => {
    const ran: string[] = []
    const actions = [
      { label: 'Text', group: 'New source', run: () => ran.push('text') },
      { label: 'Camera', disabled: true, run: () => ran.push('camera') },
    ]
    const wrapper = mount(ActionMenu, { props: { actions, label: 'Add' }, slots: { default: 'Add' }, attachTo: document.body })
    await wrapper.get('button').trigger('click')
    // The list lies over everything else, at the end of the page.
    expect(document.body.textContent).toContain('New source')
    const [text, camera] = document.querySelectorAll<HTMLButtonElement>('[role=menuitem]')
    expect(camera!.disabled).toBe(true)
    text!.click()
    expect(ran).toEqual(['text'])
    wrapper.unmount()
  })
})

describe('SplitDivider', () => {
  it('moves with the arrow keys and stays within the picture', async () => {
    const wrapper = mount(SplitDivider, { props: { modelValue: 0.99 }, global: { plugins: [i18n] } })
    const slider = wrapper.get('[role=slider]')
    expect(slider.attributes('aria-valuenow')).toBe('99')
    await slider.trigger('keydown', { key: 'ArrowRight' })
    await slider.trigger('keydown', { key: 'ArrowLeft' })
    await slider.trigger('keydown', { key: 'ArrowUp' })
    expect(wrapper.emitted('update:modelValue')!.map(([value]) => Number((value as number).toFixed(2)))).toEqual([1, 0.98])
  })
})
