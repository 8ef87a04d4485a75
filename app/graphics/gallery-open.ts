import { ref } from 'vue'

/** Whether the gallery of graphics is shown; commands and buttons open it. */
export const isGalleryShown = ref(false)
