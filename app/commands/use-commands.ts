// The commands as they stand now: whether each can run, and running it.
import { computed, shallowRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute, useRouter } from 'vue-router'
import { useAirStore } from '../air/air.store.ts'
import { isBackgroundGalleryShown } from '../backgrounds/gallery-open.ts'
import { useBackgrounds } from '../backgrounds/use-backgrounds.ts'
import { useDecksStore } from '../decks/decks.store.ts'
import { useChooseDeck } from '../decks/use-choose-deck.ts'
import { useDrawingStore } from '../drawing/drawing.store.ts'
import { useKeepDrawing } from '../drawing/use-keep-drawing.ts'
import { isGalleryShown } from '../graphics/gallery-open.ts'
import { announce } from '../shell/announce.ts'
import { useTheme } from '../shell/use-theme.ts'
import { useUndo } from '../shell/use-undo.ts'
import { useShowStore } from '../show/show.store.ts'
import { useVoiceStore } from '../sound/voice.store.ts'
import { LIMITS } from '../../core/schema/limits.ts'
import { layerTarget } from './layer-target.ts'
import { sceneTarget, type SceneTarget } from './scene-target.ts'
import { useKeysStore } from './keys.store.ts'
import { commandIds, commandList, type CommandEntry, type CommandId, type Studio } from './list.ts'

/** What a command is now. */
export interface Command extends Pick<CommandEntry, 'group' | 'icon' | 'heading' | 'detail'> {
  /** Whether menus and the palette offer it now. */
  readonly isFor: boolean
  /** Why it cannot run now, in words; null when it can. */
  readonly whyNot: string | null
  readonly run: () => void
}

export function useCommands() {
  const { t } = useI18n()
  const route = useRoute()
  const router = useRouter()
  const { undo, redo } = useUndo()
  const { toggle } = useTheme()
  const show = useShowStore()
  const air = useAirStore()
  const voice = useVoiceStore()
  const decks = useDecksStore()
  const drawing = useDrawingStore()
  const { keep: keepDrawing } = useKeepDrawing()
  const { chooseDeck } = useChooseDeck()
  const keys = useKeysStore()
  const backgrounds = useBackgrounds()
  const openDialog: Studio['openDialog'] = (which) => {
    if (which === 'graphics') isGalleryShown.value = true
    else if (which === 'slides') chooseDeck()
    else if (which === 'backgrounds') isBackgroundGalleryShown.value = true
    else if (which === 'palette') keys.isPaletteShown = true
    else keys.isListShown = true
  }
  const goTo: Studio['goTo'] = (name) => void router.push(name === 'shows' ? { name } : { name, params: { showId: show.showId! } })

  const studio = computed<Studio>(() => ({
    show,
    air,
    voice,
    decks,
    drawing,
    layers: layerTarget.value,
    scene: sceneTarget.value,
    page: String(route.name),
    openDialog,
    goTo,
    undo,
    redo,
    keepDrawing,
    switchTheme: toggle,
    nextBackground: backgrounds.next,
  }))

  function commandOf(id: CommandId, on: Studio): Command {
    const { group, icon, isFor, whyNot, run: act, ...words }: CommandEntry = commandList[id]
    const reason = whyNot(on).find((each) => each !== false)
    return {
      group,
      icon,
      ...words,
      isFor: isFor?.(on) ?? true,
      whyNot: reason === undefined ? null : t(`commands.why.${reason}`, { count: LIMITS.depth }),
      run: () => act(on),
    }
  }

  // Each is worked out when it is read: an edit renews only what is shown.
  const commands = shallowRef({} as { readonly [K in CommandId]: Command })
  for (const id of commandIds) {
    const now = computed(() => commandOf(id, studio.value))
    Object.defineProperty(commands.value, id, { get: () => now.value, enumerable: true })
  }

  /** A command as it stands for a scene that need not be on the stage. */
  const commandFor = (id: CommandId, scene: SceneTarget): Command => commandOf(id, { ...studio.value, scene })

  /** Runs a command; one that cannot run says why. */
  function run(id: CommandId): void {
    const { whyNot, run: act } = commands.value[id]
    if (whyNot === null) act()
    else announce(`${t(`commands.does.${id}`)}. ${t('commands.cannot', { why: whyNot })}`)
  }

  return { commands, commandFor, run }
}
