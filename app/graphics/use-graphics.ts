// Graphics of the open show: made from a preset, changed by their form.
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { graphicKinds, makeGraphic, type GraphicPreset, type GraphicWords, type NewGraphic } from '../../core/graphics/make-graphic.ts'
import { addContents, updateText } from '../../core/show/contents.ts'
import { addScene, graphicsOf, removeScene, updateScene } from '../../core/show/edits.ts'
import type { Scene } from '../../core/show/show.ts'
import { setStyle } from '../../core/show/style.ts'
import { makeId } from '../show/make-id.ts'
import { isTextItem } from '../../core/layers/text.ts'
import { useShowStore } from '../show/show.store.ts'

export function useGraphics() {
  const { t } = useI18n()
  const showStore = useShowStore()
  const graphics = computed(() => (showStore.show === null ? [] : graphicsOf(showStore.show)))

  const words = computed<GraphicWords>(() => ({
    names: named(graphicKinds, (kind) => t(`graphics.kinds.${kind}`)),
    parts: named(['plate', 'name', 'heading', 'text', 'point', 'source'], (part) => t(`graphics.parts.${part}`)),
    says: {
      ...named(['title', 'subtitle', 'bannerHeading', 'bannerText', 'agenda', 'caption', 'quote', 'source', 'countdown'], (said) => t(`graphics.says.${said}`)),
      points: [0, 1, 2, 3].map((index) => t(`graphics.says.points.${index}`)),
    },
  }))

  function named<K extends string>(keys: readonly K[], wordsOf: (key: K) => string): Record<K, string> {
    return Object.fromEntries(keys.map((key) => [key, wordsOf(key)])) as Record<K, string>
  }

  /** A graphic as a preset makes it for the canvas of the show. */
  const drafted = (preset: GraphicPreset): NewGraphic => makeGraphic(preset, words.value, showStore.show!.canvas, makeId)

  /** The same for a preview: it says something in place of a name that is not known yet, and of a countdown that runs to nothing. */
  function sampled(preset: GraphicPreset): NewGraphic {
    const { name, title, countdownTo } = showStore.show!.presenter
    const samples = [
      ['{name}', name || t('graphics.says.name')],
      ['{title}', title || t('graphics.says.role')],
      ['{countdown}', countdownTo === null ? '5:00' : '{countdown}'],
    ] as const
    const said = (text: string) => samples.reduce((now, [field, words]) => now.replace(field, () => words), text)
    const made = drafted(preset)
    const contents = made.contents.map((content) =>
      isTextItem(content)
        ? { ...content, text: { ...content.text, blocks: content.text.blocks.map((block) => ({ ...block, text: said(block.text) })) } }
        : content,
    )
    return { ...made, contents }
  }

  /** Adds a graphic, and brings it on the stage; false where the show takes none. */
  function add({ graphic, contents }: NewGraphic): boolean {
    const taken = new Set(showStore.show?.scenes.map(({ name }) => name))
    let name = graphic.name
    for (let n = 2; taken.has(name); n += 1) name = `${graphic.name} ${n}`
    const isMade = showStore.edit(t('edits.addGraphic', { name }), (show) => addContents(addScene(show, { ...graphic, name }), contents))
    if (isMade) {
      showStore.selectScene(graphic.id)
      showStore.selectLayer(null)
    }
    return isMade
  }

  function rename(graphic: Scene, name: string): void {
    showStore.edit(t('edits.rename', { name: graphic.name }), (show) => updateScene(show, graphic.id, (one) => ({ ...one, name })))
  }

  function setKey(graphic: Scene, key: string | null): void {
    showStore.edit(t('edits.graphicKey', { name: graphic.name }), (show) => updateScene(show, graphic.id, (one) => ({ ...one, graphic: { key } })))
  }

  function remove(graphic: Scene): void {
    showStore.edit(t('edits.removeGraphic', { name: graphic.name }), (show) => removeScene(show, graphic.id))
  }

  /** Changes what one line of a text says; its box stays, so that it keeps to its plate. */
  function setLine(graphic: Scene, contentId: string, index: number, text: string): void {
    if (showStore.isStopped(graphic.id)) return
    showStore.edit(
      t('edits.text', { name: graphic.name }),
      (show) =>
        updateText(show, contentId, (content) => ({ ...content, blocks: content.blocks.map((block, at) => (at === index ? { ...block, text } : block)) })),
      `line-${contentId}-${index}`,
    )
  }

  function style(part: Parameters<typeof setStyle>[1]): void {
    showStore.edit(t('edits.style'), (show) => setStyle(show, part), `style-${Object.keys({ ...part.colours, ...part.faces }).join()}`)
  }

  return { graphics, drafted, sampled, add, rename, setKey, remove, setLine, style }
}
