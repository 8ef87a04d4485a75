// The looks one can choose, each shown on the picture in hand; and files that bring more.
import { computed, shallowRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { errorWords } from '../show/error-words.ts'
import { toast } from 'vue-sonner'
import { ownLook, ownLooks } from '../../core/lut/own-looks.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import { prepareLook } from '../../core/steps/look/reference.ts'
import { api } from '../show/api.ts'
import { useGrab } from './use-grab.ts'

export const THUMB_WIDTH_PX = 84
export const THUMB_HEIGHT_PX = 48

export function useLooks(stepId: () => string) {
  const { t } = useI18n()
  const { grabBefore } = useGrab()
  const thumbs = shallowRef<ReadonlyMap<string, ImageData>>(new Map())

  async function refresh(): Promise<void> {
    const asked = stepId()
    const picture = await grabBefore(asked)
    if (picture === null || asked !== stepId()) return
    const small = shrunk(picture)
    thumbs.value = new Map(ownLooks.map((name) => [name, withLook(small, prepareLook(ownLook(name), 1))]))
  }
  watch(stepId, () => void refresh(), { immediate: true })

  /** Uploads a table; null when it was refused, with the reason told. */
  async function addFile(file: File): Promise<string | null> {
    try {
      return (await api.addAsset(file)).hash
    } catch (error) {
      toast.error(errorWords(error), { duration: 12_000 })
      return null
    }
  }

  return { looks: computed(() => ownLooks.map((value) => ({ value, name: t(`looks.${value}`), thumb: thumbs.value.get(value) ?? null }))), refresh, addFile }
}

/** Nearest pixels, over mid grey where the picture is clear. */
function shrunk(picture: RgbaPicture): ImageData {
  const out = new ImageData(THUMB_WIDTH_PX, THUMB_HEIGHT_PX)
  const scale = Math.min(picture.widthPx / THUMB_WIDTH_PX, picture.heightPx / THUMB_HEIGHT_PX)
  const left = (picture.widthPx - THUMB_WIDTH_PX * scale) / 2
  const top = (picture.heightPx - THUMB_HEIGHT_PX * scale) / 2
  for (let y = 0; y < THUMB_HEIGHT_PX; y += 1) {
    for (let x = 0; x < THUMB_WIDTH_PX; x += 1) {
      const from = (Math.floor(top + (y + 0.5) * scale) * picture.widthPx + Math.floor(left + (x + 0.5) * scale)) * 4
      const at = (y * THUMB_WIDTH_PX + x) * 4
      const alpha = picture.data[from + 3]! / 255
      for (let channel = 0; channel < 3; channel += 1) out.data[at + channel] = picture.data[from + channel]! * alpha + 128 * (1 - alpha)
      out.data[at + 3] = 255
    }
  }
  return out
}

function withLook(picture: ImageData, apply: ReturnType<typeof prepareLook>): ImageData {
  const out = new ImageData(picture.width, picture.height)
  const pixel = new Float64Array(4)
  for (let at = 0; at < picture.data.length; at += 4) {
    for (let channel = 0; channel < 3; channel += 1) pixel[channel] = picture.data[at + channel]! / 255
    apply?.(pixel)
    for (let channel = 0; channel < 3; channel += 1) out.data[at + channel] = Math.round(pixel[channel]! * 255)
    out.data[at + 3] = 255
  }
  return out
}
