import { createI18n } from 'vue-i18n'
import {
  amount,
  app,
  bench,
  caution,
  choices,
  correct,
  doubt,
  doubtShort,
  figure,
  finding,
  fresh,
  grid,
  group,
  kind,
  layers,
  lot,
  method,
  nav,
  origin,
  pattern,
  reason,
  save,
  say,
  scale,
  shape,
  sites,
  stance,
  stand,
  stock,
  sure,
  test,
  thick,
  unit,
  verdict,
  working,
} from '@locales/en.json'

/** What the bench says, so that it can be read before all other words are there. */
const en = {
  ...{
    amount,
    app,
    bench,
    caution,
    choices,
    correct,
    doubt,
    doubtShort,
    figure,
    finding,
    fresh,
    grid,
    group,
  },
  ...{
    kind,
    layers,
    lot,
    method,
    nav,
    origin,
    pattern,
    reason,
    save,
    say,
    scale,
    shape,
    sites,
    stance,
    stand,
  },
  ...{ stock, sure, test, thick, unit, verdict, working },
}

export const FIRST_WORDS = Object.keys(en)

export const i18n = createI18n({ legacy: false, locale: 'en', fallbackLocale: 'en', messages: { en } })

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
