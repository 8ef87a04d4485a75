// What a screen reader is told when something changed without the focus moving there.
import { nextTick, ref } from 'vue'

/** The words of the live region in App.vue. */
export const announcement = ref('')

/** Says something aloud; the same words twice are said twice. */
export function announce(words: string): void {
  announcement.value = ''
  void nextTick(() => (announcement.value = words))
}

/** How long a message with a button stays: long enough to read it and get there by keyboard. */
export const TIME_TO_ACT_MS = 10_000
