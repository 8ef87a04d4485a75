import { afterEach, describe, expect, it } from 'vitest'
import { reachSetting } from './reach-setting.ts'

afterEach(() => {
  document.body.innerHTML = ''
})

describe('a setting that is asked for by name', () => {
  it('gets the focus, in a section that is opened for it', async () => {
    document.body.innerHTML = `<aside class="inspector"><section>
      <h3><button aria-expanded="false">Frame</button></h3><input aria-label="Opacity" /></section></aside>`
    const toggle = document.querySelector('h3 button')!
    let opened = 0
    toggle.addEventListener('click', () => (opened += 1))
    expect(await reachSetting('.inspector', 'Opacity')).toBe(true)
    expect(document.activeElement?.getAttribute('aria-label')).toBe('Opacity')
    expect(opened).toBe(1)
  })

  it('may say its value after its name, or be a group whose chosen one is meant', async () => {
    document.body.innerHTML = `<aside class="inspector"><button aria-label="Blend: Normal"></button>
      <div role="radiogroup" aria-label="Shape"><button tabindex="-1">Box</button><button tabindex="0">Ellipse</button></div></aside>`
    expect(await reachSetting('.inspector', 'Blend')).toBe(true)
    expect(document.activeElement?.getAttribute('aria-label')).toBe('Blend: Normal')
    await reachSetting('.inspector', 'Shape')
    expect(document.activeElement?.textContent).toBe('Ellipse')
  })

  it('opens the inspector that is folded away, and waits for a view that comes late', async () => {
    document.body.innerHTML = '<button data-opens-inspector aria-expanded="false"></button>'
    const toggle = document.querySelector('button')!
    toggle.addEventListener('click', () => {
      toggle.setAttribute('aria-expanded', 'true')
      window.setTimeout(() => document.body.insertAdjacentHTML('beforeend', '<aside class="inspector"><input aria-label="X" /></aside>'), 50)
    })
    expect(await reachSetting('.inspector', 'X')).toBe(true)
    expect(document.activeElement?.getAttribute('aria-label')).toBe('X')
  })

  it('that is not there says so', async () => {
    document.body.innerHTML = '<aside class="inspector"><input aria-label="Opacity x" /></aside>'
    expect(await reachSetting('.inspector', 'Opacity', 60)).toBe(false)
  })
})
