// The screens that are shared, and what is known of each, by its input.
import { updateInputOf } from '../../core/show/edits.ts'
import screenFont from '../../node_modules/@fontsource-variable/instrument-sans/files/instrument-sans-latin-wght-normal.woff2?url'
import { isScreen } from '../../core/inputs/screen.ts'
import { shallowRef, type Ref } from 'vue'
import type { Input } from '../../core/show/show.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { LiveState } from '../../engine/live/live-state.ts'
import { ScreenManager, type SharedScreen } from '../../engine/live/screen-manager.ts'
import { useShowStore } from '../show/show.store.ts'
import { runStandin } from './standin-threads.ts'
import type { LiveSink } from './live-sink.ts'
import { useMirrorWatch } from './use-mirror-watch.ts'

/** By this the studio's own tab is known when it is shared. */
const OWN_HANDLE = 'green-room-studio'

/** `states`: those of all live inputs. `grab` gives a screen's picture as it comes. */
export function useScreens(
  { supply, drop, tell }: LiveSink,
  states: Readonly<Ref<Readonly<Record<string, LiveState>>>>,
  grab: (inputId: string) => Promise<RgbaPicture | null>,
) {
  const showStore = useShowStore()
  const shared = shallowRef<Readonly<Record<string, SharedScreen>>>({})
  const devices = navigator.mediaDevices as MediaDevices | undefined
  // Not every browser knows of capture handles; without them a tab that shares itself is known by its picture.
  ;(devices as { setCaptureHandleConfig?: (config: object) => void } | undefined)?.setCaptureHandleConfig?.({
    handle: OWN_HANDLE,
    exposeOrigin: true,
    permittedOrigins: [location.origin],
  })
  const manager = new ScreenManager(
    {
      mediaDevices: devices !== undefined && 'getDisplayMedia' in devices ? devices : undefined,
      openStandin: (frameRate) => {
        const worker = new Worker(new URL('../../standins/screen/screen.worker.ts', import.meta.url), { type: 'module', name: 'stand-in screen' })
        const standin = runStandin(worker, { fontUrl: new URL(screenFont, location.href).href, frameRate })
        return { port: standin.port, stop: standin.stop, setRate: (rate) => standin.tell({ type: 'rate', frameRate: rate }) }
      },
      streamOf: (track) => new MediaStreamTrackProcessor({ track: track as MediaStreamVideoTrack, maxBufferSize: 1 }).readable,
      isOwnHandle: (handle) => (handle as { handle?: unknown } | null | undefined)?.handle === OWN_HANDLE,
    },
    {
      onSupply: (inputId, pictures) => supply(inputId, pictures, false),
      onGone: drop,
      onState: tell,
      onShared: (inputId, screen) => {
        shared.value = { ...shared.value, [inputId]: screen }
        nameScreen(inputId, screen)
      },
    },
  )
  const mirrors = useMirrorWatch(states, shared, grab)

  /** Keeps what was shared, so that it can be asked for by name again. */
  function nameScreen(inputId: string, { label }: SharedScreen): void {
    const isOf = (input: Input) => input.id === inputId && isScreen(input) && input.source.type === 'shared' && input.source.label !== label
    if (showStore.show?.inputs.some(isOf) !== true) return
    showStore.amend((show) => updateInputOf(show, inputId, isScreen, (input) => ({ ...input, source: { type: 'shared', label } })))
  }

  return {
    manager,
    shared,
    /** Screens that show the studio itself, by their input. */
    mirrors,
  }
}
