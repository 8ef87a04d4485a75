import { nextTick } from 'vue'
import { unfoldSection } from './folded-sections.ts'

/** Sends the focus into the inspector, once what is selected is shown there. */
export function useFocusInspector() {
  async function focus(selector: string): Promise<HTMLElement | null> {
    await nextTick()
    await nextTick()
    const field = document.querySelector<HTMLElement>(`.build-inspector ${selector}`)
    field?.focus()
    return field
  }
  return {
    /** Into the first line of a text, all of it selected. */
    focusText: () => {
      unfoldSection('text')
      void focus('textarea').then((field) => field instanceof HTMLTextAreaElement && field.select())
    },
    focusFirst: () => void focus('button, input, textarea'),
  }
}
