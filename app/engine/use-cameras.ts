// The cameras that are open, and what is known of each, by its input.
import { shallowRef } from 'vue'
import type { CameraControls } from '../../engine/client/camera-controls.ts'
import { CameraManager, type CameraOffer, type CameraState } from '../../engine/client/camera-manager.ts'
import type { StudioEngine } from '../../engine/client/studio-engine.ts'
import { openStandin } from './open-standin.ts'

/** `engine` gives the one that runs now: pictures go there. */
export function useCameras(engine: () => StudioEngine) {
  const cameraStates = shallowRef<Readonly<Record<string, CameraState>>>({})
  const cameraControls = shallowRef<Readonly<Record<string, CameraControls>>>({})
  /** The largest size and rate of each device. */
  const cameraOffers = shallowRef<Readonly<Record<string, CameraOffer>>>({})
  const cameras = new CameraManager(
    {
      mediaDevices: navigator.mediaDevices,
      openStandin,
      streamOf: (track) => new MediaStreamTrackProcessor({ track: track as MediaStreamVideoTrack, maxBufferSize: 1 }).readable,
      setTimer: (run, delayMs) => window.setTimeout(run, delayMs),
      clearTimer: (timer) => window.clearTimeout(timer),
    },
    {
      onSupply: (inputId, supply) => engine().setSupply(inputId, supply, true),
      onGone: (inputId) => engine().dropSupply(inputId),
      onState: (inputId, state) => (cameraStates.value = { ...cameraStates.value, [inputId]: state }),
      onOffer: (inputId, most) => (cameraOffers.value = { ...cameraOffers.value, [inputId]: most }),
      onControls: (inputId, controls) => (cameraControls.value = { ...cameraControls.value, [inputId]: controls }),
    },
  )
  return { cameras, cameraStates, cameraControls, cameraOffers }
}
