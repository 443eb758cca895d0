import { useMutation } from '@tanstack/vue-query'
import { answered, api, type Method, type MethodFields } from '@/api/client'
import { useChanged } from '@/api/keys'

/** The ways to copy a method and change a person's own. */
export function useOwnMethods() {
  const refresh = useChanged('method')
  const path = (id: string) => ({ params: { path: { id } } })

  const copy = useMutation({
    mutationFn: (body: { base: string; method: MethodFields }) =>
      answered(api.POST('/api/methods', { body })),
    onSettled: refresh,
  })
  const change = useMutation({
    mutationFn: ({ id, version, method }: { id: string; version: number; method: MethodFields }) =>
      answered(api.PUT('/api/methods/{id}', { ...path(id), body: { version, method } })),
    onSettled: refresh,
  })
  const remove = useMutation({
    mutationFn: (id: string) => answered(api.DELETE('/api/methods/{id}', path(id))),
    onSettled: refresh,
  })

  return { copy, change, remove }
}

/** The figures of a method that may be changed, as a form holds them. */
export function fieldsOf(method: Method): MethodFields {
  const pair = (range: number[]) => [...range]
  const maybe = (range?: number[] | null) => (range ? pair(range) : null)
  return {
    name: method.name ?? '',
    c_n: pair(method.c_n),
    moisture_pct: pair(method.moisture_pct),
    free_air_space_min_pct: method.free_air_space_min_pct,
    volume_l: pair(method.volume_l),
    height_cm: pair(method.height_cm),
    first_turn_day: method.first_turn_day ?? null,
    turn_every_days: maybe(method.turn_every_days),
    check_days: pair(method.check_days),
    active_weeks: pair(method.active_weeks),
    cure_weeks: pair(method.cure_weeks),
    volume_left_pct: pair(method.volume_left_pct),
    mass_left_pct: pair(method.mass_left_pct),
    n_kept_pct: pair(method.n_kept_pct),
    build_h_m3: pair(method.build_h_m3),
    turn_h_m3: maybe(method.turn_h_m3),
    pattern: [...method.pattern],
    foundation_cm: method.foundation_cm,
    cap_cm: method.cap_cm,
  }
}
