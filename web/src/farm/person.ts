import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import type { System } from '@/words/units'

export type Decimals = 'device' | 'point' | 'comma'

interface Kept {
  units: System
  decimals: Decimals
  site: string | null
  /** What stands before or after an amount of money; the farm's own affair. */
  currency: string
}

const KEPT_AS = 'zymarch-person'

/**
 * What is a person's own affair and not the farm's: units, decimals and the
 * site they look at. Kept in the browser; nothing that is stored changes.
 */
export const usePerson = defineStore('person', () => {
  const { units: keptUnits, decimals: keptDecimals, site: keptSite, currency: keptCurrency } = kept()
  const units = ref<System>(keptUnits)
  const decimals = ref<Decimals>(keptDecimals)
  const site = ref<string | null>(keptSite)
  const currency = ref(keptCurrency)

  watch([units, decimals, site, currency], () => {
    const now: Kept = {
      units: units.value,
      decimals: decimals.value,
      site: site.value,
      currency: currency.value,
    }
    try {
      localStorage.setItem(KEPT_AS, JSON.stringify(now))
    } catch {
      // Nothing can be kept here; the choice holds until the page is closed.
    }
  })

  /** English words with the decimals chosen; the device's own dates unless a mark was chosen. */
  const locale = computed(() => {
    if (decimals.value === 'point') return 'en-GB'
    if (decimals.value === 'comma') return 'en-DE'
    return navigator.language || 'en'
  })

  return { units, decimals, site, currency, locale }
})

/** The site that was looked at last. */
export const remembered = (): string | null => kept().site

function kept(): Kept {
  const first: Kept = { units: 'metric', decimals: 'device', site: null, currency: '' }
  try {
    const found = JSON.parse(localStorage.getItem(KEPT_AS) ?? '{}') as Partial<Kept>
    return {
      units: found.units === 'us' ? 'us' : first.units,
      decimals: found.decimals === 'point' || found.decimals === 'comma' ? found.decimals : first.decimals,
      site: typeof found.site === 'string' ? found.site : null,
      currency: typeof found.currency === 'string' ? found.currency.slice(0, 8) : '',
    }
  } catch {
    return first
  }
}
