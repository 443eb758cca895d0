import { ref } from 'vue'

/** The person's own decimals and dates, whatever language the words are in. */
const formatLocale = ref(navigator.language || 'en')

export function useFormatLocale() {
  return formatLocale
}
