// The cameras of the show, opened in this browser, and what is known of each, by its input.
import { shallowRef } from 'vue'
import type { CameraControls } from '../../engine/live/camera-controls.ts'
import { CameraManager, type CameraOffer } from '../../engine/live/camera-manager.ts'
import { openStandin } from './open-standin.ts'
import type { LiveSink } from './live-sink.ts'

export function useCameras({ supply, drop, tell }: LiveSink) {
  const controls = shallowRef<Readonly<Record<string, CameraControls>>>({})
  /** The largest size and rate of each device. */
  const offers = shallowRef<Readonly<Record<string, CameraOffer>>>({})
  const manager = new CameraManager(
    {
      mediaDevices: navigator.mediaDevices,
      openStandin,
      streamOf: (track) => new MediaStreamTrackProcessor({ track: track as MediaStreamVideoTrack, maxBufferSize: 1 }).readable,
      setTimer: (run, delayMs) => window.setTimeout(run, delayMs),
      clearTimer: (timer) => window.clearTimeout(timer),
    },
    {
      onSupply: (inputId, pictures) => supply(inputId, pictures, true),
      onGone: drop,
      onState: tell,
      onOffer: (inputId, most) => (offers.value = { ...offers.value, [inputId]: most }),
      onControls: (inputId, next) => (controls.value = { ...controls.value, [inputId]: next }),
    },
  )
  return { manager, controls, offers }
}
