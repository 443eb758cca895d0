import { computed } from 'vue'
import { usePerson } from '@/farm/person'

/** The person's own decimals and dates, whatever language the words are in. */
export function useFormatLocale() {
  const person = usePerson()
  return computed(() => person.locale)
}
