import { useMutation, useQuery } from '@tanstack/vue-query'
import { answered, api, type PersonFields } from '@/api/client'
import { key, useChanged } from '@/api/keys'

/** Those within one's reach, and what can be done about them. */
export function usePeople() {
  const {
    data: people,
    error,
    refetch,
  } = useQuery({
    queryKey: key('people'),
    queryFn: ({ signal }) => answered(api.GET('/api/people', { signal })),
  })
  const refresh = useChanged('person')
  const path = (id: string) => ({ params: { path: { id } } })

  const create = useMutation({
    mutationFn: (body: PersonFields) => answered(api.POST('/api/people', { body })),
    onSettled: refresh,
  })
  const change = useMutation({
    mutationFn: ({ id, version, person }: { id: string; version: number; person: PersonFields }) =>
      answered(api.PUT('/api/people/{id}', { ...path(id), body: { version, person } })),
    onSettled: refresh,
  })
  const remove = useMutation({
    mutationFn: (id: string) => answered(api.DELETE('/api/people/{id}', path(id))),
    onSettled: refresh,
  })
  const makeCode = useMutation({
    mutationFn: (id: string) => answered(api.POST('/api/people/{id}/code', path(id))),
    onSettled: refresh,
  })
  const withdraw = useMutation({
    mutationFn: (id: string) => answered(api.DELETE('/api/people/{id}/code', path(id))),
    onSettled: refresh,
  })
  const cutOff = useMutation({
    mutationFn: ({ id, device }: { id: string; device: string }) =>
      answered(api.DELETE('/api/people/{id}/devices/{device}', { params: { path: { id, device } } })),
    onSettled: refresh,
  })
  return { people, error, refetch, create, change, remove, makeCode, withdraw, cutOff }
}
