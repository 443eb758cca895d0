import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answered, api, type Deed } from '@/api/client'
import { signedOut } from '@/api/door'
import { key } from '@/api/keys'
import { once } from '@/kit/once'

/** Who is signed in, and what they may do here. Until that is known nothing is kept from them. */
export const useMe = once('me', () => {
  const { data: me } = useQuery({
    queryKey: key('me'),
    enabled: computed(() => !signedOut.value),
    queryFn: ({ signal }) => answered(api.GET('/api/me', { signal })),
    staleTime: Infinity,
  })
  const may = (deed: Deed) => !me.value || me.value.may.includes(deed)
  const mayWork = computed(() => may('work'))
  const mayKeep = computed(() => may('keep'))
  const mayBook = computed(() => may('book'))
  const mayLetIn = computed(() => may('let-in'))
  const mayGovern = computed(() => may('govern'))
  return { me, mayWork, mayKeep, mayBook, mayLetIn, mayGovern }
})
