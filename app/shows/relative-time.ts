/** A moment as people say it, to the minute or the second: "today 22:42", "yesterday 9:05", the date before. Capitals and commas as in running text. */
export function timeOf(iso: string, locale: string, now = new Date(), toTheSecond = false): string {
  const moment = new Date(iso)
  const seconds = toTheSecond ? ({ second: '2-digit' } as const) : {}
  const time = moment.toLocaleTimeString(locale, { hour: 'numeric', minute: '2-digit', ...seconds, hourCycle: 'h23' })
  const days = Math.round((startOfDay(now) - startOfDay(moment)) / DAY_MS)
  const day =
    days === 0 || days === 1
      ? new Intl.RelativeTimeFormat(locale, { numeric: 'auto' }).format(-days, 'day')
      : moment.toLocaleDateString(locale, { dateStyle: 'medium' })
  return `${day} ${time}`
}

const DAY_MS = 86_400_000

function startOfDay(moment: Date): number {
  return new Date(moment.getFullYear(), moment.getMonth(), moment.getDate()).getTime()
}
