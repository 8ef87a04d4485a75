/** A moment as people say it: the time today, the date before. */
export function timeOf(iso: string, locale: string): string {
  const moment = new Date(iso)
  const isToday = moment.toDateString() === new Date().toDateString()
  return moment.toLocaleString(locale, isToday ? { hour: '2-digit', minute: '2-digit', second: '2-digit' } : { dateStyle: 'medium', timeStyle: 'short' })
}
