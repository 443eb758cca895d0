import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { answered, api, type SiteFields } from '@/api/client'
import { useSite } from './useFarm'

/** The sites and the ways to change them. */
export function useSites() {
  const queries = useQueryClient()
  const { sites, site, open } = useSite()
  const refresh = () =>
    Promise.all(['sites', 'lots'].map((key) => queries.invalidateQueries({ queryKey: [key] })))
  const path = (id: number) => ({ params: { path: { id } } })

  const create = useMutation({
    mutationFn: (body: SiteFields) => answered(api.POST('/api/sites', { body })),
    onSettled: refresh,
  })
  const change = useMutation({
    mutationFn: ({ id, version, site }: { id: number; version: number; site: SiteFields }) =>
      answered(api.PUT('/api/sites/{id}', { ...path(id), body: { version, site } })),
    onSettled: refresh,
  })
  const remove = useMutation({
    mutationFn: (id: number) => answered(api.DELETE('/api/sites/{id}', path(id))),
    onSettled: refresh,
  })
  const restore = useMutation({
    mutationFn: (id: number) => answered(api.POST('/api/sites/{id}/restore', path(id))),
    onSettled: refresh,
  })

  return { sites, site, open, create, change, remove, restore }
}
