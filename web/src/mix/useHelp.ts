import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { onScopeDispose, ref, watch } from 'vue'
import { answered, api, type Recipe } from '@/api/client'
import { key } from '@/api/keys'

/** How long a mix stays as it is before what would make it surer is looked for [ms]. */
const SETTLED = 600

/** What would make a mix surer: asked apart from the bench, once nobody steps it any more. */
export function useHelp(recipe: () => Recipe) {
  const settled = ref<Recipe | null>(null)
  let timer: ReturnType<typeof setTimeout> | undefined
  watch(
    recipe,
    (now) => {
      clearTimeout(timer)
      timer = setTimeout(() => (settled.value = now), SETTLED)
    },
    { immediate: true },
  )
  onScopeDispose(() => clearTimeout(timer))
  const { data } = useQuery({
    queryKey: key('confidence', settled),
    queryFn: ({ signal }) => answered(api.POST('/api/confidence', { body: settled.value!, signal })),
    enabled: () => settled.value !== null,
    placeholderData: keepPreviousData,
  })
  return data
}
