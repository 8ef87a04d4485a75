/** Makes a new id, unlike any before. */
export type MakeId = () => string
