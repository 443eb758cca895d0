import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answered, api, type Material } from '@/api/client'
import { key } from '@/api/keys'
import { hatchOf as signOf } from '@/kit/hatch'
import { once } from '@/kit/once'
import { i18n } from '@/words/i18n'
import { usePerson } from './person'

/** The sites, and the one that is open: the one chosen last, else the newest. */
export const useSite = once('site', () => {
  const person = usePerson()
  const { data, error, refetch } = useQuery({
    queryKey: key('sites'),
    queryFn: ({ signal }) => answered(api.GET('/api/sites', { signal })),
    staleTime: Infinity,
  })
  const sites = computed(() => data.value ?? [])
  const site = computed(() => sites.value.find((one) => one.id === person.site) ?? sites.value.at(-1) ?? null)
  return { sites, site, error, refetch, open: (id: string) => (person.site = id) }
})

/** What the program says of itself. */
export const useAbout = once('about', () => {
  const { data: about } = useQuery({
    queryKey: key('about'),
    queryFn: ({ signal }) => answered(api.GET('/api/about', { signal })),
    staleTime: Infinity,
  })
  return { about }
})

/** The containers of the site that is open. */
export const useMeasureList = once('measures', () => {
  const { site } = useSite()
  const siteId = computed(() => site.value?.id ?? '')
  const { data, error, refetch } = useQuery({
    queryKey: key('measures', siteId),
    queryFn: ({ signal }) =>
      answered(api.GET('/api/sites/{site}/measures', { params: { path: { site: siteId.value } }, signal })),
    enabled: computed(() => siteId.value !== ''),
  })
  return { measures: data, error, refetch }
})

/** What this month is like at the site, where its climate is known. */
export function useMonth() {
  const { about } = useAbout()
  const { site } = useSite()
  return computed(() => {
    const month = Number(about.value?.today.slice(5, 7) ?? 0)
    return site.value?.climate?.[month - 1] ?? null
  })
}

/** What all materials are called, and the hatch of each: enough for most pages. */
export const useNames = once('names', () => {
  const { data } = useQuery({
    queryKey: key('names'),
    queryFn: ({ signal }) => answered(api.GET('/api/materials/names', { signal })),
    staleTime: Infinity,
  })
  const named = computed(() => new Map((data.value ?? []).map((material) => [material.id, material])))
  const signs = computed(() => new Map((data.value ?? []).map((material) => [material.id, signOf(material)])))
  const hatchOf = (id: string) => signs.value.get(id) ?? 'hatch-soil-0'
  const nameOf = (id: string, label?: string | null) => label || named.value.get(id)?.name || id
  const booked = computed(
    () => new Set((data.value ?? []).filter(({ is_own }) => !is_own).map(({ name }) => name)),
  )
  /** A name as it stands within a sentence: the book's with a small letter, a person's own as they wrote it. */
  const within = (name: string) => (booked.value.has(name) ? lowered(name) : name)
  return { named, hatchOf, nameOf, within }
})

const none: Material[] = []

/** All materials with their figures, a person's own first. */
export const useMaterials = once('materials', () => {
  const { data } = useQuery({
    queryKey: key('materials'),
    queryFn: ({ signal }) => answered(api.GET('/api/materials', { signal })),
    staleTime: Infinity,
  })
  const materials = computed(() => data.value ?? none)
  const byId = computed(() => new Map(materials.value.map((material) => [material.id, material])))
  return { materials, byId }
})

/** The methods, a person's own first. */
export const useMethods = once('methods', () => {
  const { t, te } = i18n.global
  const { data: methods } = useQuery({
    queryKey: key('methods'),
    queryFn: ({ signal }) => answered(api.GET('/api/methods', { signal })),
    staleTime: Infinity,
  })
  const find = (id: string | null | undefined) => methods.value?.find((one) => one.id === id) ?? null

  /** What it is called: by the book, or by the person; one that was removed by its id. */
  function methodName(id: string): string {
    return find(id)?.name ?? (te(`method.${id}`) ? t(`method.${id}`) : id.replaceAll('-', ' '))
  }
  /** The same within a sentence; a person's own keeps the letters they wrote. */
  const methodWithin = (id: string) => (te(`method.${id}`) ? lowered(methodName(id)) : methodName(id))
  return { methods, find, methodName, methodWithin }
})

function lowered(name: string): string {
  return name.charAt(0).toLowerCase() + name.slice(1)
}
