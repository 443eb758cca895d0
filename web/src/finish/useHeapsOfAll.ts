import { useQueries } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answered, api } from '@/api/client'
import { key } from '@/api/keys'
import { useSite } from '@/farm/useFarm'

/** The heaps that were built at all farms that whoever asks sees: those of the open one first, built last first. */
export function useHeapsOfAll() {
  const { sites, site } = useSite()
  const lists = useQueries({
    queries: computed(() =>
      sites.value.map(({ id }) => ({
        queryKey: key('heaps', id),
        queryFn: ({ signal }: { signal: AbortSignal }) =>
          answered(api.GET('/api/sites/{site}/heaps', { params: { path: { site: id } }, signal })),
      })),
    ),
  })
  const heaps = computed(() =>
    sites.value
      .flatMap((of, at) =>
        (lists.value[at]?.data ?? [])
          .filter(({ built_at }) => built_at)
          .map(({ id, name, built_at }) => {
            const isHere = of.id === site.value?.id
            return { id, name, built_at: built_at!, isHere, site: isHere ? '' : of.name }
          }),
      )
      .sort((a, b) => Number(b.isHere) - Number(a.isHere) || b.built_at.localeCompare(a.built_at)),
  )
  return { heaps }
}
