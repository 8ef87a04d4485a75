// Leads to a setting by its name: shows the panel that has it, opens the section around it, and gives it the focus.

/** How long a view may take to come. */
const PATIENCE_MS = 5000

/** The first control of a name below `root`; names are also said by labels of radio groups and list boxes, which say their value after it. */
function controlOf(root: string, label: string): HTMLElement | null {
  const named = [...document.querySelectorAll<HTMLElement>(`${root} [aria-label]`)]
  const fits = (element: HTMLElement) => {
    const name = element.getAttribute('aria-label')!
    return name === label || name.startsWith(`${label}: `)
  }
  const found = named.find(fits) ?? null
  if (found === null || found.matches('button, input, textarea, [tabindex]')) return found
  return found.querySelector<HTMLElement>('[tabindex="0"]') ?? found.querySelector<HTMLElement>('button, input') ?? found
}

/** Opens the section that hides a control. */
function unfold(control: HTMLElement): void {
  for (const toggle of control.closest('section')?.querySelectorAll<HTMLElement>('h3 [aria-expanded="false"]') ?? []) toggle.click()
}

/**
 * Focuses the control that is called `label` below `root`, a selector, once it is there.
 *
 * @returns false when it does not come: what is selected has no such setting
 */
export async function reachSetting(root: string, label: string, patienceMs = PATIENCE_MS): Promise<boolean> {
  const until = performance.now() + patienceMs
  while (performance.now() < until) {
    const control = controlOf(root, label)
    if (control !== null) {
      unfold(control)
      await nextFrame()
      control.focus()
      control.scrollIntoView({ block: 'nearest' })
      return true
    }
    // The panel may be folded away.
    if (document.querySelector(root) === null) document.querySelector<HTMLElement>('[data-opens-inspector][aria-expanded="false"]')?.click()
    await nextFrame()
  }
  return false
}

function nextFrame(): Promise<void> {
  return new Promise((done) => {
    requestAnimationFrame(() => done())
  })
}
