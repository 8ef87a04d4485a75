// axe-core on a page as it is.
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import type { Page } from '@playwright/test'

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')

type Impact = 'minor' | 'moderate' | 'serious' | 'critical'

interface Finding {
  readonly id: string
  readonly impact: Impact
  readonly nodes: readonly { readonly html: string; readonly failureSummary: string }[]
}

/** The findings of some impacts, with the rule for names that hold the label (WCAG 2.5.3), which axe has switched off. The list boxes' focus guards are left out: they hand the focus on, and nothing is said. */
export async function findingsOf(page: Page, impacts: readonly Impact[]): Promise<string[]> {
  const found = await page.evaluate<Finding[]>(`(async () => {
    if (window.axe === undefined) { ${axe} }
    return (await window.axe.run({ exclude: ['[data-headlessui-focus-guard]'] }, { resultTypes: ['violations'], rules: { 'label-content-name-mismatch': { enabled: true } } })).violations
  })()`)
  return found
    .filter(({ impact }) => impacts.includes(impact))
    .flatMap(({ id, nodes }) => nodes.map((node) => `${id}: ${node.html.slice(0, 160)} — ${node.failureSummary.replace(/\s+/g, ' ').slice(0, 160)}`))
}
