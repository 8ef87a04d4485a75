// Edits of a text's words and looks. Its box grows with the words.
import { textOf, isText } from '../../core/layers/text.ts'
import { useI18n } from 'vue-i18n'
import { updateText } from '../../core/show/contents.ts'
import { updateLayer } from '../../core/show/edits.ts'
import type { TextLayer } from '../../core/show/show.ts'
import type { TextBlock, TextContent } from '../../core/text/text-content.ts'
import { useShowStore } from '../show/show.store.ts'
import { useTextFit } from './use-text-fit.ts'

export function useTextEdit(layerNow: () => TextLayer) {
  const { t } = useI18n()
  const showStore = useShowStore()
  const { grown, tooSmall, whenLettersCome } = useTextFit(layerNow)

  /** `make` changes the text as it is when the edit is made, which may be later than now. */
  function change(make: (text: TextContent) => Partial<TextContent>, key: string): void {
    const { sceneId } = showStore
    const { id, name, contentId } = layerNow()
    if (sceneId === null) return
    const edit = (part: (text: TextContent) => Partial<TextContent>) =>
      showStore.edit(
        t('edits.text', { name }),
        (show) => {
          const next = updateText(show, contentId, (text) => ({ ...text, ...part(text) }))
          return updateLayer(next, sceneId, id, (layer) => (isText(layer) ? grown(layer, textOf(next, layer)) : layer))
        },
        `text-${id}-${key}`,
      )
    edit(make)
    whenLettersCome(() => edit(() => ({})))
  }

  function changeBlock(index: number, part: Partial<TextBlock>): void {
    change(
      ({ blocks }) => ({ blocks: blocks.map((block, at) => (at === index ? { ...block, ...part } : block)) }),
      `block-${index}-${Object.keys(part).join()}`,
    )
  }

  return { change, changeBlock, tooSmall }
}
