import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answered, api, type Material } from '@/api/client'
import { hatches } from '@/figures/hatch'

/** The farm that is open. There is one so far: the newest. */
export function useSite() {
  const { data, error, refetch } = useQuery({
    queryKey: ['sites'],
    queryFn: ({ signal }) => answered(api.GET('/api/sites', { signal })),
    staleTime: Infinity,
  })
  const site = computed(() => data.value?.at(-1) ?? null)
  return { site, error, refetch }
}

/** What the program says of itself. */
export function useAbout() {
  const { data: about } = useQuery({
    queryKey: ['about'],
    queryFn: ({ signal }) => answered(api.GET('/api/about', { signal })),
    staleTime: Infinity,
  })
  return { about }
}

const none: Material[] = []

/** The reference table, with the hatch of each material. It does not change while the program runs. */
export function useMaterials() {
  const { data } = useQuery({
    queryKey: ['materials'],
    queryFn: ({ signal }) => answered(api.GET('/api/materials', { signal })),
    staleTime: Infinity,
  })
  const materials = computed(() => data.value ?? none)
  const byId = computed(() => new Map(materials.value.map((material) => [material.id, material])))
  const signs = computed(() => hatches(materials.value))
  const hatchOf = (id: string) => signs.value.get(id) ?? 'hatch-soil-0'
  const nameOf = (id: string, label?: string | null) => label || byId.value.get(id)?.name || id
  return { materials, byId, hatchOf, nameOf }
}
