import { ref } from 'vue'

/** Whether the gallery of backgrounds is shown; commands and buttons open it. */
export const isBackgroundGalleryShown = ref(false)
