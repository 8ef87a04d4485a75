import { i18n } from '../i18n.ts'
import { ApiError } from './api.ts'

/**
 * What went wrong, in the language of the interface: a server that does not answer, a refusal by its code, or what the error says itself. A refusal
 * in English is the server's own sentence, which has the figures.
 */
export function errorWords(error: unknown): string {
  const { t, te } = i18n.global
  if (error instanceof TypeError) return t('errors.network')
  if (error instanceof ApiError) {
    const key = `refusals.${error.code}`
    // The server begins with the name of the file that it means.
    const name = /^"([^"]*)"/.exec(error.message)?.[1] ?? ''
    return te(key) ? t(key, { name: `„${name}“` }) : error.message
  }
  return error instanceof Error ? error.message : String(error)
}
