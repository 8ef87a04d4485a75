// Graphics of the open show: made from a preset, changed by their form.
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { photoOf } from '../../core/graphics/photo.ts'
import { makeGraphic, USUAL_KEYS, type GraphicKind, type GraphicPreset, type NewGraphic } from '../../core/graphics/make-graphic.ts'
import { addContents, updateText } from '../../core/show/contents.ts'
import { addScene, graphicsOf, removeScene, updateScene } from '../../core/show/edits.ts'
import type { Palette } from '../../core/palette/palettes.ts'
import { copyGraphic } from '../../core/show/kept-graphic.ts'
import type { Input, Scene } from '../../core/show/show.ts'
import { setStyle } from '../../core/show/style.ts'
import { areSameKey } from '../commands/keys.ts'
import { useKeysStore } from '../commands/keys.store.ts'
import { makeId } from '../show/make-id.ts'
import { inputIdOf } from '../../core/layers/index.ts'
import { isTextItem } from '../../core/layers/text.ts'
import { LIMITS } from '../../core/schema/limits.ts'
import { useShowStore } from '../show/show.store.ts'
import { useGraphicWords } from './use-graphic-words.ts'

export function useGraphics() {
  const { t } = useI18n()
  const showStore = useShowStore()
  const keys = useKeysStore()
  const graphics = computed(() => (showStore.show === null ? [] : graphicsOf(showStore.show)))

  const words = useGraphicWords()

  /** Who graphics of this show have a photo of already; null where none has one. */
  const knownPhoto = computed<Input | null>(() => {
    const ids = graphics.value.map(photoOf).flatMap((photo) => (photo === null ? [] : [inputIdOf(photo)]))
    return showStore.show?.inputs.find(({ id }) => ids.includes(id)) ?? null
  })

  /** A graphic as a preset makes it for the canvas of the show. */
  const drafted = (preset: GraphicPreset, photo: Input | null = knownPhoto.value): NewGraphic =>
    makeGraphic(preset, words.value, showStore.show!.canvas, makeId, photo)

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

  /** Whether no command and no other graphic has a key. */
  function isFree(key: string): boolean {
    return keys.refusalOf(key) === null && !graphics.value.some((one) => one.graphic!.key !== null && areSameKey(one.graphic!.key, key))
  }

  /** The usual key of a kind; null where something else has it. */
  function freeKey(kind: GraphicKind | 'logo'): string | null {
    return isFree(USUAL_KEYS[kind]) ? USUAL_KEYS[kind] : null
  }

  /** A name that no scene has yet. */
  function freeName(wanted: string): string {
    const taken = new Set(showStore.show?.scenes.map(({ name }) => name))
    let name = wanted
    for (let n = 2; taken.has(name); n += 1) name = `${wanted.slice(0, LIMITS.nameLength - 4)} ${n}`
    return name
  }

  /** Puts a copy of a graphic after the others, and brings it on the stage. */
  function duplicate(graphic: Scene): void {
    const name = freeName(graphic.name)
    const made = showStore.show === null ? null : copyGraphic(showStore.show, graphic.id, name, makeId)
    if (made === null || !showStore.edit(t('edits.duplicate', { name: graphic.name }), () => made.show)) return
    showStore.selectScene(made.graphicId)
    showStore.selectLayer(null)
  }

  /** Adds a graphic, and brings it on the stage; false where the show takes none. */
  function add({ graphic: made, contents }: NewGraphic, kind: GraphicKind | 'logo' | null): boolean {
    const graphic = { ...made, graphic: { key: kind === null ? null : freeKey(kind) } }
    const name = freeName(graphic.name)
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

  return { setPalette, graphics, knownPhoto, drafted, sampled, add, duplicate, freeName, isFree, rename, setKey, remove, setLine, style }
}
