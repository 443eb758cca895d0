import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { answered, api, type RecipeItem } from '@/api/client'
import { key } from '@/api/keys'

/** What an amount weighs and what room it takes loose, before it is written down; nothing if it cannot be said. */
export function useWeight(item: Ref<RecipeItem | null>) {
  const { data, isError } = useQuery({
    queryKey: key('weight', item),
    queryFn: ({ signal }) =>
      answered(
        api.POST('/api/mix', {
          body: { format: 'zymarch-recipe/1', items: item.value ? [item.value] : [] },
          signal,
        }),
      ),
    enabled: computed(() => item.value !== null),
    placeholderData: keepPreviousData,
  })
  return computed(() => (item.value && !isError.value ? (data.value?.items[0] ?? null) : null))
}
