import { computed } from 'vue'
import { sayAmount } from './say'
import { digitsOf, fromShown, type Quantity, signOf, toShown } from './units'
import { usePerson } from '@/farm/person'

/** Figures in the person's units: shown, typed, and with their sign. */
export function useUnits() {
  const person = usePerson()
  const system = computed(() => person.units)

  return {
    system,
    sign: (quantity: Quantity) => signOf(quantity, person.units),
    digits: (quantity: Quantity) => digitsOf(quantity, person.units),
    shown: (value: number, quantity: Quantity) => toShown(value, quantity, person.units),
    kept: (value: number, quantity: Quantity) => fromShown(value, quantity, person.units),
    /** "12 kg", "26 lb". */
    say: (value: number, quantity: Quantity) =>
      `${sayAmount(toShown(value, quantity, person.units), person.locale)} ${signOf(quantity, person.units)}`,
  }
}
