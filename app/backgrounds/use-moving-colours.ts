// Moving backgrounds follow the colours of the show: whatever changes those, each is drawn anew and takes the place of the old one.
import { watchDebounced } from '@vueuse/core'
import { computed } from 'vue'
import { toast } from 'vue-sonner'
import { isClip, type ClipInput, type MovingBackground } from '../../core/inputs/clip.ts'
import { updateInputOf } from '../../core/show/edits.ts'
import { api } from '../show/api.ts'
import { errorWords } from '../show/error-words.ts'
import { useShowStore } from '../show/show.store.ts'

/** A colour that is dragged is drawn when it rests. */
const REST_MS = 600

/** What files were drawn in, by their hashes, as far as this tab knows. */
const drawnIn = new Map<string, string>()

/** Draws a moving background in the colours that the open show has now. Throws as calls of the server do. */
export async function drawnNow(moving: MovingBackground): Promise<{ readonly hash: string }> {
  const { ground, panel, accent } = useShowStore().show!.style.colours
  const made = await api.makeBackground(moving, { ground, panel, accent })
  drawnIn.set(made.hash, keyOf({ ground, panel, accent }))
  return made
}

const keyOf = ({ ground, panel, accent }: { readonly ground: string; readonly panel: string; readonly accent: string }) => [ground, panel, accent].join()

/** Runs while the studio is open. */
export function useMovingColours(): void {
  const showStore = useShowStore()
  const moving = computed(() => (showStore.show?.inputs ?? []).filter((input): input is ClipInput => isClip(input) && input.moving !== null))
  const colours = computed(() => (showStore.show === null ? '' : keyOf(showStore.show.style.colours)))

  async function draw(input: ClipInput): Promise<void> {
    const { showId } = showStore
    const key = colours.value
    try {
      const { hash } = await drawnNow(input.moving!)
      // Meanwhile the colours may be others again, which draws it once more, or the show closed.
      if (showStore.showId !== showId || colours.value !== key) return
      // No step of undo: who takes the colours back has the background drawn in them too.
      showStore.amend((show) => updateInputOf(show, input.id, isClip, (now) => (now.asset === input.asset ? { ...now, asset: hash } : now)))
    } catch (error) {
      toast.error(errorWords(error))
    }
  }

  watchDebounced(
    () => [showStore.showId, colours.value, ...moving.value.map(({ asset }) => asset)],
    ([id, now], [idBefore, before]) => {
      if (id === null || id !== idBefore) return
      for (const input of moving.value) {
        // A file that this tab has not drawn has the colours that the show had when it was opened.
        const isStale = drawnIn.has(input.asset) ? drawnIn.get(input.asset) !== now : now !== before
        if (isStale) void draw(input)
      }
    },
    { debounce: REST_MS },
  )
}
