// The screens that are shared, and what is known of each, by its input.
import { updateInputOf } from '../../core/show/edits.ts'
import screenFont from '../../node_modules/@fontsource-variable/instrument-sans/files/instrument-sans-latin-wght-normal.woff2?url'
import { isScreen } from '../../core/inputs/screen.ts'
import { shallowRef } from 'vue'
import type { Input } from '../../core/show/show.ts'
import { ScreenManager, type ScreenState, type SharedScreen } from '../../engine/client/screen-manager.ts'
import type { StudioEngine } from '../../engine/client/studio-engine.ts'
import { useShowStore } from '../show/show.store.ts'
import { runStandin } from './standin-threads.ts'
import { useMirrorWatch } from './use-mirror-watch.ts'

/** By this the studio's own tab is known when it is shared. */
const OWN_HANDLE = 'green-room-studio'

/** `engine` gives the one that runs now: pictures go there. */
export function useScreens(engine: () => StudioEngine) {
  const showStore = useShowStore()
  const screenStates = shallowRef<Readonly<Record<string, ScreenState>>>({})
  const sharedScreens = shallowRef<Readonly<Record<string, SharedScreen>>>({})
  const devices = navigator.mediaDevices as MediaDevices | undefined
  // Not every browser knows of capture handles; without them a tab that shares itself is known by its picture.
  ;(devices as { setCaptureHandleConfig?: (config: object) => void } | undefined)?.setCaptureHandleConfig?.({
    handle: OWN_HANDLE,
    exposeOrigin: true,
    permittedOrigins: [location.origin],
  })
  const screens = new ScreenManager(
    {
      mediaDevices: devices !== undefined && 'getDisplayMedia' in devices ? devices : undefined,
      openStandin: (frameRate) => {
        const worker = new Worker(new URL('../../standins/screen/screen.worker.ts', import.meta.url), { type: 'module', name: 'stand-in screen' })
        const { port, stop, tell } = runStandin(worker, { fontUrl: new URL(screenFont, location.href).href, frameRate })
        return { port, stop, setRate: (rate) => tell({ type: 'rate', frameRate: rate }) }
      },
      streamOf: (track) => new MediaStreamTrackProcessor({ track: track as MediaStreamVideoTrack, maxBufferSize: 1 }).readable,
      isOwnHandle: (handle) => (handle as { handle?: unknown } | null | undefined)?.handle === OWN_HANDLE,
    },
    {
      onSupply: (inputId, supply) => engine().setSupply(inputId, supply, false),
      onGone: (inputId) => engine().dropSupply(inputId),
      onState: (inputId, state) => (screenStates.value = { ...screenStates.value, [inputId]: state }),
      onShared: (inputId, screen) => {
        sharedScreens.value = { ...sharedScreens.value, [inputId]: screen }
        nameScreen(inputId, screen)
      },
    },
  )
  const mirrors = useMirrorWatch(screenStates, sharedScreens, (inputId) => engine().grab(inputId, null, null))

  /** Keeps what was shared, so that it can be asked for by name again. */
  function nameScreen(inputId: string, { label }: SharedScreen): void {
    const isOf = (input: Input) => input.id === inputId && isScreen(input) && input.source.type === 'shared' && input.source.label !== label
    if (showStore.show?.inputs.some(isOf) !== true) return
    showStore.amend((show) => updateInputOf(show, inputId, isScreen, (input) => ({ ...input, source: { type: 'shared', label } })))
  }

  return {
    screens,
    screenStates,
    sharedScreens,
    /** Screens that show the studio itself, by their input. */
    mirrors,
    /** Lets the presenter choose what a screen shows; from a press. */
    shareScreen: (inputId: string) => screens.share(inputId),
    stopScreen: (inputId: string) => screens.stop(inputId),
  }
}
