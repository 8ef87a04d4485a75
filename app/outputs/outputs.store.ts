// Ways out beside the webcam: a clean window of the feed, and a device or a file of this computer.
import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { FromDeviceOutWorker } from '../../engine/device/device-out.worker.ts'
import type { DeviceOutTarget, DeviceOutWays, FromDeviceOut } from '../../webcam/device-out.ts'
import { useAirStore } from '../air/air.store.ts'
import { api } from '../show/api.ts'

declare global {
  interface Window {
    /** For the output window: the feed's track, or null while it does not run. */
    greenRoomFeed?: () => MediaStreamTrack | null
  }
}

export const useOutputsStore = defineStore('outputs', () => {
  const air = useAirStore()
  const ways = shallowRef<DeviceOutWays | null>(null)
  /** Where the feed goes now; null: nowhere. */
  const deviceState = ref<{ readonly kind: 'idle' | 'starting' } | { readonly kind: 'running'; readonly path: string }>({ kind: 'idle' })
  /** Why it ended, or could not begin. */
  const deviceFailure = ref<string | null>(null)
  const isWindowBlocked = ref(false)
  let stopDevice: (() => void) | null = null

  window.greenRoomFeed = () => air.feedTrack()

  /** Opens the output window, or brings it to the front. */
  function openWindow(): void {
    isWindowBlocked.value = window.open('/output/', 'green-room-output', 'popup,width=1280,height=720') === null
  }

  async function refreshWays(): Promise<void> {
    try {
      ways.value = await api.deviceOutWays()
    } catch (error) {
      deviceFailure.value = error instanceof Error ? error.message : String(error)
    }
  }

  /** Sends the feed to a device or a file until told otherwise. The feed must run. */
  function startDevice(target: DeviceOutTarget): void {
    const track = air.feedTrack()?.clone() as MediaStreamVideoTrack | undefined
    const canvas = air.onAirShow?.canvas
    if (track === undefined || canvas === undefined) return
    stopDevice?.()
    deviceFailure.value = null
    deviceState.value = { kind: 'starting' }
    const worker = new Worker(new URL('../../engine/device/device-out.worker.ts', import.meta.url), { type: 'module', name: 'device out' })
    const { readable } = new MediaStreamTrackProcessor({ track, maxBufferSize: 3 })
    const socketUrl = new URL('/device-out?role=studio', location.href)
    socketUrl.protocol = socketUrl.protocol === 'https:' ? 'wss:' : 'ws:'
    const stop = () => {
      track.stop()
      worker.terminate()
      if (stopDevice !== stop) return
      stopDevice = null
      deviceState.value = { kind: 'idle' }
    }
    stopDevice = stop
    worker.onmessage = ({ data }: MessageEvent<FromDeviceOutWorker>) => {
      if (data.type === 'closed') return stop()
      if (data.type === 'failed') {
        deviceFailure.value = data.reason
        return stop()
      }
      const message = data.message as FromDeviceOut
      if (message.type === 'started') deviceState.value = { kind: 'running', path: message.path }
      else {
        deviceFailure.value = message.reason
        stop()
      }
    }
    worker.postMessage({ readable, socketUrl: socketUrl.href, start: { target, ...canvas } }, [readable as unknown as Transferable])
  }

  return { ways, deviceState, deviceFailure, isWindowBlocked, openWindow, refreshWays, startDevice, stopDevice: () => stopDevice?.() }
})
