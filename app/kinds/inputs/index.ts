// Every kind of input as the studio shows it: a folder with its part of the inspector for kinds that have one, and a line here.
import { Camera, Film, Image, MonitorUp, Palette, Presentation } from 'lucide-vue-next'
import type { Component } from 'vue'
import type { InputKind, InputOf } from '../../../core/inputs/input.ts'
import CameraSection from './camera/CameraSection.vue'
import ClipSection from './clip/ClipSection.vue'
import ColourSection from './colour/ColourSection.vue'
import DeckSection from './deck/DeckSection.vue'
import type { InputFace } from './face.ts'
import ScreenSection from './screen/ScreenSection.vue'

const still = () => ({ words: 'bench.still', hasSize: true })

export const inputFaces: { readonly [K in InputKind]: InputFace<K> } = {
  camera: {
    icon: Camera,
    section: CameraSection as Component,
    state: ({ id }, { statusOf }) => {
      const status = statusOf(id)
      return status === 'live' ? { words: 'bench.live', hasSize: true } : { words: `camera.states.${status}`, hasSize: false }
    },
  },
  screen: {
    icon: MonitorUp,
    section: ScreenSection as Component,
    state: ({ id }, { statusOf }) => ({ words: `screens.states.${statusOf(id)}`, hasSize: true }),
  },
  deck: { icon: Presentation, section: DeckSection as Component, state: still },
  picture: { icon: Image, section: null, state: still },
  clip: { icon: Film, section: ClipSection as Component, state: () => ({ words: 'layer.kinds.clip', hasSize: true }) },
  colour: { icon: Palette, section: ColourSection as Component, state: still },
}

/** How the kind of an input shows itself. */
export function inputFaceOf<K extends InputKind>(input: InputOf<K> & { readonly kind: K }): InputFace<K> {
  return inputFaces[input.kind]
}
