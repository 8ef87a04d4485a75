// Words that a text takes from the show and the clock: "{name}, {title}", "we begin in {countdown}".
import type { TextContent } from './text-content.ts'

export const fieldNames = ['name', 'title', 'time', 'date', 'countdown'] as const
export type FieldName = (typeof fieldNames)[number]

/** The clock on the wall, when the clock of the stage is at 0. */
export interface WallClock {
  /** Milliseconds since 1970, UTC. */
  readonly epochMs: number
  /** What the place is ahead of UTC. */
  readonly utcOffsetMin: number
  /** BCP 47, for dates. */
  readonly locale: string
}

/** What the fields of a show are filled from. */
export interface FieldSource {
  readonly name: string
  readonly title: string
  /** "HH:MM"; null: nothing is counted down to. */
  readonly countdownTo: string | null
}

const FIELD = new RegExp(`\\{(${fieldNames.join('|')})\\}`, 'g')
const SECOND_MS = 1000
const MINUTE_MS = 60 * SECOND_MS
const DAY_MS = 24 * 60 * MINUTE_MS
/** A time of the day that is further away than this was passed today. */
const LONGEST_COUNTDOWN_MS = DAY_MS / 2

/** The fields that a text names. Other words in braces are words. */
export function fieldsIn(content: TextContent): FieldName[] {
  return fieldNames.filter((name) => content.blocks.some(({ text }) => text.includes(`{${name}}`)))
}

/** A text with its fields filled at a time of the stage, and until when they say the same. The same content when it names none. */
export function filledText(
  content: TextContent,
  source: FieldSource,
  wall: WallClock,
  timeMs: number,
): { readonly content: TextContent; readonly untilMs: number } {
  const fields = fieldsIn(content)
  if (fields.length === 0) return { content, untilMs: Infinity }
  const localMs = wall.epochMs + timeMs + wall.utcOffsetMin * MINUTE_MS
  const values = Object.fromEntries(fields.map((field) => [field, valueOf(field, source, wall, localMs)]))
  const filled = content.blocks.map((block) => ({ ...block, text: block.text.replace(FIELD, (_, field: string) => values[field]!.words) }))
  // A line that a field leaves empty takes no room from the others.
  const said = filled.filter(({ text }, index) => text.trim() !== '' || text === content.blocks[index]!.text)
  const blocks = said.length === 0 ? filled : said
  return { content: { ...content, blocks }, untilMs: timeMs + Math.min(...fields.map((field) => values[field]!.holdsMs)) }
}

function valueOf(field: FieldName, source: FieldSource, { locale }: WallClock, localMs: number): { readonly words: string; readonly holdsMs: number } {
  switch (field) {
    case 'name':
    case 'title':
      return { words: source[field], holdsMs: Infinity }
    case 'time':
      return { words: timeOfDay(localMs), holdsMs: leftOf(localMs, MINUTE_MS) }
    case 'date':
      return { words: new Intl.DateTimeFormat(locale, { dateStyle: 'long', timeZone: 'UTC' }).format(localMs), holdsMs: leftOf(localMs, DAY_MS) }
    case 'countdown':
      return countdown(source.countdownTo, localMs)
    default:
      return field satisfies never
  }
}

/** What is left of the minute, or the day, that a time lies in. */
function leftOf(localMs: number, unitMs: number): number {
  return unitMs - (localMs % unitMs)
}

function timeOfDay(localMs: number): string {
  return new Date(localMs).toISOString().slice(11, 16)
}

function countdown(to: string | null, localMs: number): { readonly words: string; readonly holdsMs: number } {
  if (to === null) return { words: '', holdsMs: Infinity }
  const [hours, minutes] = to.split(':').map(Number) as [number, number]
  const leftMs = ((((hours * 60 + minutes) * MINUTE_MS - (localMs % DAY_MS)) % DAY_MS) + DAY_MS) % DAY_MS
  // Over: until it is nearer tomorrow's.
  if (leftMs > LONGEST_COUNTDOWN_MS || leftMs === 0) return { words: '0:00', holdsMs: leftMs === 0 ? SECOND_MS : leftMs - LONGEST_COUNTDOWN_MS }
  const seconds = Math.ceil(leftMs / SECOND_MS)
  const two = (value: number) => String(value).padStart(2, '0')
  const h = Math.floor(seconds / 3600)
  const m = Math.floor(seconds / 60) % 60
  const words = h > 0 ? `${h}:${two(m)}:${two(seconds % 60)}` : `${m}:${two(seconds % 60)}`
  return { words, holdsMs: leftMs - (seconds - 1) * SECOND_MS }
}
