// The screens that are shared, and what is known of each, by its input.
import { shallowRef } from 'vue'
import type { Show } from '../../core/show/show.ts'
import { ScreenManager, type ScreenState, type SharedScreen } from '../../engine/client/screen-manager.ts'
import type { StudioEngine } from '../../engine/client/studio-engine.ts'
import { fontFiles } from './font-files.ts'
import { runStandin } from './standin-threads.ts'

/** By this the studio's own tab is known when it is shared. */
const OWN_HANDLE = 'green-room-studio'

/** `engine` gives the one that runs now: pictures go there. `onShared`: a screen was chosen. */
export function useScreens(engine: () => StudioEngine, onShared: (inputId: string, screen: SharedScreen) => void) {
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
      openStandin: () => {
        const worker = new Worker(new URL('../../standins/screen/screen.worker.ts', import.meta.url), { type: 'module', name: 'stand-in screen' })
        return runStandin(worker, { fontUrl: screenFontUrl() })
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
        onShared(inputId, screen)
      },
    },
  )
  return { screens, screenStates, sharedScreens, follow: (show: Show) => screens.follow(show) }
}

/** Letters for the stand-in's window. */
function screenFontUrl(): string {
  return fontFiles.find(({ family, range }) => family === 'Instrument Sans' && range.includes('U+0000'))!.url
}
