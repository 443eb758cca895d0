import { createI18n } from 'vue-i18n'
import * as first from './first'

const en = { ...first }

export const FIRST_WORDS = Object.keys(en)

/** A number and its sign stay on one line: "34 : 1", "112 cm", "55 %". */
export const unbroken = (text: string): string =>
  text
    .replace(/ : 1\b/g, '\u00a0:\u00a01')
    .replace(/(\d) (?=(?:cm|m[³²]?|kg|t|g|L|mL|%|°C)(?![\p{L}\p{N}]))/gu, '$1\u00a0')

export const i18n = createI18n({
  legacy: false,
  locale: 'en',
  fallbackLocale: 'en',
  messages: { en },
  postTranslation: (text) => (typeof text === 'string' ? unbroken(text) : text),
})

let all: Promise<void> | null = null

/** All words, for every page but the first. */
export function allWords(): Promise<void> {
  all ??= import('@locales/en.json?raw').then(({ default: words }) =>
    i18n.global.setLocaleMessage('en', JSON.parse(words) as typeof en),
  )
  // A connection that broke is tried again at the next page.
  all.catch(() => (all = null))
  return all
}
