// Puts the presenter's own camera and microphone in place of the stand-ins, once the browser allows them.
import { isCamera } from '../../core/inputs/camera.ts'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { updateMicrophone, updateInputOf } from '../../core/show/edits.ts'
import type { Show } from '../../core/show/show.ts'
import { useShowStore } from '../show/show.store.ts'
import { deviceOf } from './first-devices.ts'
import { useDevices, type Asked } from './use-devices.ts'

export function useRealDevices() {
  const { t } = useI18n()
  const showStore = useShowStore()
  const devices = useDevices()
  /** What came of the last asking; null before. */
  const asked = ref<Asked | 'asking' | null>(null)

  const camera = computed(() => showStore.show?.inputs.find(isCamera) ?? null)
  const usesStandin = computed(() => camera.value?.device.type === 'standin' || showStore.show?.microphone.device.type !== 'device')
  /** Whether there is something to gain by asking. */
  const canAsk = computed(() => devices.hasAny.value && usesStandin.value && showStore.isEditor)

  async function use(): Promise<void> {
    asked.value = 'asking'
    asked.value = await devices.askAll()
    const [firstCamera] = devices.cameras.value
    const [firstMicrophone] = devices.microphones.value
    if (asked.value !== 'granted') return
    showStore.edit(t('edits.ownDevices'), (show) => {
      const withCamera = firstCamera === undefined || camera.value === null ? show : withDevice(show, camera.value.id, firstCamera)
      return firstMicrophone === undefined ? withCamera : updateMicrophone(withCamera, { device: deviceOf(firstMicrophone) })
    })
  }

  return { asked, canAsk, usesStandin, use }
}

function withDevice(show: Show, inputId: string, info: MediaDeviceInfo): Show {
  return updateInputOf(show, inputId, isCamera, (input) => ({ ...input, device: deviceOf(info) }))
}
