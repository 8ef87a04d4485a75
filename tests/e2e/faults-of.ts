// What is wrong with the page as it lies: clipped, beyond its panel, or in the way of something else.
import type { Page } from '@playwright/test'

/** Text that is cut off without saying so, controls beyond their panel, and pairs of controls that cover each other. */
export function faultsOf(page: Page, part = 'body'): Promise<string[]> {
  return page.evaluate((part) => {
    const faults: string[] = []
    const nameOf = (element: Element) =>
      `${element.tagName.toLowerCase()} "${(element.getAttribute('aria-label') ?? element.textContent ?? '').trim().slice(0, 40)}"`
    const isShown = (element: Element) => {
      const { width, height } = element.getBoundingClientRect()
      return width > 1 && height > 1 && getComputedStyle(element).visibility !== 'hidden'
    }
    /** Beyond the edge of a list that scrolls, or cut by it. */
    const isScrolledAway = (element: Element) => {
      const box = element.getBoundingClientRect()
      for (let parent = element.parentElement; parent !== null; parent = parent.parentElement) {
        const { overflowX, overflowY } = getComputedStyle(parent)
        const clip = parent.getBoundingClientRect()
        if (/auto|scroll/.test(overflowX) && (box.right > clip.right + 1 || box.left < clip.left - 1)) return parent.scrollWidth > parent.clientWidth + 1
        if (/auto|scroll/.test(overflowY) && (box.bottom > clip.bottom + 1 || box.top < clip.top - 1)) return parent.scrollHeight > parent.clientHeight + 1
      }
      return false
    }
    if (document.documentElement.scrollWidth > innerWidth) faults.push('the page scrolls sideways')
    if (document.documentElement.scrollHeight > innerHeight) faults.push('the page scrolls')
    const controls = [...document.querySelector(part)!.querySelectorAll('button, a, input:not([type=file]), select, header [role=status]')].filter(
      (control) => isShown(control) && !isScrolledAway(control),
    )
    for (const control of controls) {
      const box = control.getBoundingClientRect()
      if (box.left < -1 || box.right > innerWidth + 1) faults.push(`${nameOf(control)} reaches beyond the window`)
      const panel = control.closest('aside, section, header, main, body')!.getBoundingClientRect()
      if (box.right > panel.right + 1 || box.left < panel.left - 1) faults.push(`${nameOf(control)} reaches beyond its panel`)
      if (control.tagName === 'SELECT' && box.width < 60) faults.push(`${nameOf(control)} is too narrow for its words`)
      const style = getComputedStyle(control)
      if (control.tagName === 'BUTTON' && control.scrollWidth > control.clientWidth + 1 && style.overflow !== 'hidden')
        faults.push(`${nameOf(control)} is too narrow for its words`)
    }
    for (const [i, first] of controls.entries()) {
      for (const second of controls.slice(i + 1)) {
        if (first.contains(second) || second.contains(first) || (first.closest('label') === second.closest('label') && first.closest('label') !== null))
          continue
        // The menu of a card lies on its card.
        // Flats overlap as they do on a stage.
        if (first.closest('[data-layer]') !== null && second.closest('[data-layer]') !== null) continue
        // A menu lies over what is below it.
        if (first.closest('[role=menu], [role=listbox], [role=dialog]') !== second.closest('[role=menu], [role=listbox], [role=dialog]')) continue
        if (first.closest('[data-over-card]') !== null || second.closest('[data-over-card]') !== null) continue
        const a = first.getBoundingClientRect()
        const b = second.getBoundingClientRect()
        const across = Math.min(a.right, b.right) - Math.max(a.left, b.left)
        const down = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top)
        // Only what lies in one panel can collide; a panel that scrolls hides the rest.
        if (across > 2 && down > 2 && first.closest('header, aside, section, main') === second.closest('header, aside, section, main')) {
          faults.push(`${nameOf(first)} covers ${nameOf(second)}`)
        }
      }
    }
    return faults
  }, part)
}
