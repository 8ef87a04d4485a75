/** A new id for a part of a show. */
export function makeId(): string {
  return crypto.randomUUID().replaceAll('-', '').slice(0, 16)
}
