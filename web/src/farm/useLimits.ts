import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answered, api, type Limits } from '@/api/client'
import { key } from '@/api/keys'

type Plain = 'amount' | 'measure_l' | 'altitude_m' | 'hours_a_week' | 'weeks'
type OfOwn = keyof Limits['own'] & string

/**
 * What may be written where, as the server has it: the same table refuses what lies
 * outside. Until it is there a form takes anything, and the server judges.
 */
export function useLimits() {
  const { data } = useQuery({
    queryKey: key('limits'),
    queryFn: ({ signal }) => answered(api.GET('/api/limits', { signal })),
    staleTime: Infinity,
  })
  const pair = (limits?: number[]) => ({ min: limits?.[0] ?? -Infinity, max: limits?.[1] ?? Infinity })
  return {
    /** Of a plain field, to be bound to a number field. */
    of: (name: Plain) => pair(data.value?.[name]),
    /** Of a figure of one's own. */
    ofOwn: (figure: OfOwn) => pair(data.value?.own[figure]),
    /** Of a figure of a month. */
    ofMonth: (figure: string) => pair(data.value?.month[figure]),
    letters: computed(() => data.value?.name_letters),
  }
}
