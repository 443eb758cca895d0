import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answered, api, type Limits, type Unit } from '@/api/client'
import { key } from '@/api/keys'
import { once } from '@/kit/once'

/** Names of what is a lowest and a highest. */
type Plain = { [K in keyof Limits]: number[] extends Limits[K] ? K : never }[keyof Limits]
/** Names of tables of them. */
type Table = { [K in keyof Limits]: Limits[K] extends Record<string, number[]> ? K : never }[keyof Limits]

/**
 * What may be written where, as the server has it: the same table refuses what lies
 * outside. Until it is there a form takes anything, and the server judges.
 */
export const useLimits = once('limits', () => {
  const { data } = useQuery({
    queryKey: key('limits'),
    queryFn: ({ signal }) => answered(api.GET('/api/limits', { signal })),
    staleTime: Infinity,
  })
  const pair = (limits?: number[]) => ({ min: limits?.[0] ?? -Infinity, max: limits?.[1] ?? Infinity })
  return {
    /** Of a plain field, to be bound to a number field. */
    of: (name: Plain) => pair(data.value?.[name]),
    /** Of a figure of a table, by its name. */
    in: (table: Table, figure: string) => pair(data.value?.[table][figure]),
    /** Letters of a name. */
    letters: computed(() => data.value?.name_letters),
    /** Letters of a source or a note. */
    textLetters: computed(() => data.value?.text_letters),
    /** One step of an amount, in the units shown: a measure, one or ten of a weight, ten of a volume. */
    stepOf({ unit, amount }: { unit: Unit; amount: number }): number {
      const step = data.value?.step
      if (!step || unit === 'measure') return step?.measures ?? 1
      if (unit === 'litre') return step.volume
      return amount < step.much_kg ? step.weight : step.weight_of_much
    },
    /** From which volume on a heap keeps its heat, litres. */
    keepsHeat: computed(() => data.value?.keeps_heat_l),
  }
})
