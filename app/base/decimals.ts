import { i18n } from '../i18n.ts'
import { languageOf } from '../locales/languages.ts'

/**
 * A number as it is written in the language of the interface: "3.5", "3,5". Digits are always 0 to 9, since they are also typed, and
 * thousands are not grouped.
 *
 * @param digits decimal places
 * @param least decimal places that stay when they are zero; as many as `digits` unless given
 */
export function decimals(value: number, digits: number, least = digits): string {
  // Minus zero is no number that people know.
  const rounded = Number(value.toFixed(digits)) + 0
  return i18n.global.n(rounded, { maximumFractionDigits: digits, minimumFractionDigits: least, useGrouping: false, numberingSystem: 'latn' })
}

/** A figure made of several numbers, such as 1280×720, kept in its order where the text around it runs from right to left. */
export function figure(text: string): string {
  const { value: tag } = i18n.global.locale as unknown as { readonly value: string }
  return languageOf(tag).direction === 'rtl' ? `\u2066${text}\u2069` : text
}
