import { defineStore } from 'pinia'
import { reactive, watch } from 'vue'
import type { Pin, Wants } from './choices'
import { usePerson } from '@/farm/person'

/** What is asked for where a person names no most: more than any one heap. */
export const PLENTY_L = 20_000

/**
 * What a person wants of a mix to be found. Kept while the page is open, so
 * that a look at the bench does not lose it; another site wants other things.
 */
export const useWants = defineStore('wants', () => {
  const person = usePerson()
  const wants = reactive<Wants>(first())

  watch(
    () => person.site,
    (_, before) => {
      if (before !== null) Object.assign(wants, first())
    },
  )

  function pin(lot: string, to: Pin | null) {
    if (to) wants.pins[lot] = to
    else delete wants.pins[lot]
  }

  return { wants, pin }
})

/** A hot heap wants a cubic metre; one that a person can turn is seldom above two and a half. */
function first(): Wants {
  return {
    size: [1000, 2500],
    step: 'whole',
    isCautious: false,
    pins: {},
    caps: [],
    raised: [],
    mostWater: null,
  }
}
