// Graphics of the open show: made from a preset, changed by their form.
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { makeGraphic, USUAL_KEYS, type GraphicKind, type GraphicPreset, type NewGraphic } from '../../core/graphics/make-graphic.ts'
import { addContents, updateText } from '../../core/show/contents.ts'
import { addScene, graphicsOf, removeScene, updateScene } from '../../core/show/edits.ts'
import type { Palette } from '../../core/palette/palettes.ts'
import type { Scene } from '../../core/show/show.ts'
import { setStyle } from '../../core/show/style.ts'
import { areSameKey } from '../commands/keys.ts'
import { useKeysStore } from '../commands/keys.store.ts'
import { makeId } from '../show/make-id.ts'
import { isTextItem } from '../../core/layers/text.ts'
import { useShowStore } from '../show/show.store.ts'
import { useGraphicWords } from './use-graphic-words.ts'

export function useGraphics() {
  const { t } = useI18n()
  const showStore = useShowStore()
  const keys = useKeysStore()
  const graphics = computed(() => (showStore.show === null ? [] : graphicsOf(showStore.show)))

  const words = useGraphicWords()

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

  /** The usual key of a kind; null where something else has it. */
  function freeKey(kind: GraphicKind | 'logo'): string | null {
    const key = USUAL_KEYS[kind]
    const isTaken = keys.refusalOf(key) !== null || graphics.value.some((one) => one.graphic!.key !== null && areSameKey(one.graphic!.key, key))
    return isTaken ? null : key
  }

  /** Adds a graphic, and brings it on the stage; false where the show takes none. */
  function add({ graphic: made, contents }: NewGraphic, kind: GraphicKind | 'logo'): boolean {
    const graphic = { ...made, graphic: { key: freeKey(kind) } }
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

  /** Changes all colours at once. */
  function setPalette(colours: Palette): void {
    showStore.edit(t('edits.style'), (show) => setStyle(show, { colours }))
  }

  return { setPalette, graphics, drafted, sampled, add, rename, setKey, remove, setLine, style }
}
