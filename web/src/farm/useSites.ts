import { useMutation } from '@tanstack/vue-query'
import { answered, api, type SiteFields } from '@/api/client'
import { useChanged } from '@/api/keys'
import { useSite } from './useFarm'

/** The sites and the ways to change them. */
export function useSites() {
  const { sites, site, open } = useSite()
  const refresh = useChanged('site')
  const path = (id: string) => ({ params: { path: { id } } })

  const create = useMutation({
    mutationFn: (body: SiteFields) => answered(api.POST('/api/sites', { body })),
    onSettled: refresh,
  })
  const change = useMutation({
    mutationFn: ({ id, version, site }: { id: string; version: number; site: SiteFields }) =>
      answered(api.PUT('/api/sites/{id}', { ...path(id), body: { version, site } })),
    onSettled: refresh,
  })
  const remove = useMutation({
    mutationFn: (id: string) => answered(api.DELETE('/api/sites/{id}', path(id))),
    onSettled: refresh,
  })

  return { sites, site, open, create, change, remove }
}
