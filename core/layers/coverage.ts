/** A plate or a fill this opaque hides what is under it. */
export const HIDING_OPACITY = 0.9
