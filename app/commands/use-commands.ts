// Everything that can be done on every page, each once. Buttons, keys, the list of keys and the palette read it.
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute, useRouter } from 'vue-router'
import { useEngineStore } from '../engine/engine.store.ts'
import type { CommandId, WhyNot } from '../locales/commands-en.ts'
import { useTheme } from '../shell/use-theme.ts'
import { useUndo } from '../shell/use-undo.ts'
import { useShowStore } from '../show/show.store.ts'
import { useVoiceStore } from '../sound/voice.store.ts'
import { useKeysStore } from './keys.store.ts'

export type CommandGroup = 'everywhere' | 'air' | 'go'

/** What a command is now. */
export interface Command {
  readonly group: CommandGroup
  /** Why it cannot run now, in words; null when it can. */
  readonly whyNot: string | null
  readonly run: () => void
}

export function useCommands() {
  const { t } = useI18n()
  const route = useRoute()
  const router = useRouter()
  const showStore = useShowStore()
  const engine = useEngineStore()
  const voice = useVoiceStore()
  const keys = useKeysStore()
  const { undo, redo } = useUndo()
  const { toggle } = useTheme()

  /** The first reason that holds. */
  const why = (...reasons: readonly (WhyNot | false)[]): string | null => {
    const reason = reasons.find((each) => each !== false)
    return reason === undefined ? null : t(`commands.why.${reason}`)
  }
  const whyNoFeed = computed(() => {
    if (!engine.canFeed) return t('feed.unsupported')
    return why(engine.isFeedOn && 'feedRuns', showStore.showId === null && 'noShow', !showStore.isEditor && 'otherTab', showStore.sceneId === null && 'noScene')
  })
  const goTo = (name: 'bench' | 'build' | 'devices'): Command => ({
    group: 'go',
    whyNot: why(showStore.showId === null && 'noShow', route.name === name && 'here'),
    run: () => void router.push({ name, params: { showId: showStore.showId! } }),
  })

  const commands = computed((): { readonly [K in CommandId]: Command } => ({
    undo: { group: 'everywhere', whyNot: why(showStore.undoLabel === null && 'nothingToUndo'), run: undo },
    redo: { group: 'everywhere', whyNot: why(showStore.redoLabel === null && 'nothingToRedo'), run: redo },
    palette: { group: 'everywhere', whyNot: null, run: () => (keys.isPaletteShown = true) },
    keys: { group: 'everywhere', whyNot: null, run: () => (keys.isListShown = true) },
    theme: { group: 'everywhere', whyNot: null, run: toggle },
    mute: { group: 'air', whyNot: null, run: () => voice.toggleMute() },
    card: { group: 'air', whyNot: why(!engine.isFeedOn && 'noFeed'), run: () => engine.toggleCard() },
    startFeed: { group: 'air', whyNot: whyNoFeed.value, run: () => engine.startFeed() },
    stopFeed: { group: 'air', whyNot: why(!engine.isFeedOn && 'noFeed'), run: () => engine.stopFeed() },
    takeScene: {
      group: 'air',
      whyNot: why(
        showStore.sceneId === null && 'noScene',
        !engine.isFeedOn && 'noFeed',
        !showStore.isEditor && 'otherTab',
        engine.onAirId === showStore.sceneId && 'onAirAlready',
      ),
      run: () => engine.takeOnAir(showStore.sceneId!),
    },
    goBench: goTo('bench'),
    goBuild: goTo('build'),
    goDevices: goTo('devices'),
    goShows: { group: 'go', whyNot: why(route.name === 'shows' && 'here'), run: () => void router.push({ name: 'shows' }) },
  }))

  /** Runs a command if it can. */
  function run(id: CommandId): void {
    const command = commands.value[id]
    if (command.whyNot === null) command.run()
  }

  return { commands, run }
}
