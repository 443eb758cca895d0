import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answered, api, type Probe, type ProbeMade, type RodFault } from '@/api/client'
import { key, useChanged } from '@/api/keys'
import { useAttempt } from '@/kit/useAttempt'
import { useSlip } from '@/kit/useSlip'
import { useSay } from '@/words/useSay'

export interface Rod {
  name: string
  every_min: number
  hours_a_second: number | null
  fault: RodFault | null
  fault_from_day: number
}

/** What a probe stands in. */
export interface StandsIn {
  kind: 'heap' | 'site'
  id: string
}

/** What is done to the probes of a heap or of a place: work of the desk, that wants the farm. */
export function useProbes(of: () => StandsIn) {
  const { t } = useSay()
  const { attempt } = useAttempt()
  const slip = useSlip()
  const refresh = useChanged('heap')

  const { data: probes } = useQuery({
    queryKey: computed(() => key('probes', of().kind, of().id)),
    // By its key and not by what is looked at now: another part of the page may have asked for it.
    queryFn: ({ signal, queryKey: [, kind, id] }) => {
      const params = { path: { id } }
      return kind === 'heap'
        ? answered(api.GET('/api/heaps/{id}/probes', { params, signal }))
        : answered(api.GET('/api/sites/{id}/probes', { params, signal }))
    },
    enabled: computed(() => of().id !== ''),
    staleTime: 0,
  })

  async function add(name: string): Promise<ProbeMade> {
    const params = { path: { id: of().id } }
    const made =
      of().kind === 'heap'
        ? await answered(api.POST('/api/heaps/{id}/probes', { params, body: { name } }))
        : await answered(api.POST('/api/sites/{id}/probes', { params, body: { name } }))
    await refresh()
    return made
  }

  /** It sends on its own from now on; what came so far is asked for a few times. */
  function follow() {
    for (const after of [700, 2500, 6000, 15_000]) window.setTimeout(() => void refresh(), after)
  }

  async function playRod(rod: Rod): Promise<Probe> {
    const params = { path: { id: of().id } }
    const made = await answered(api.POST('/api/heaps/{id}/simulated-rod', { params, body: rod }))
    await refresh()
    follow()
    return made
  }

  async function playStation(body: { name: string; hours_a_second: number | null }) {
    const params = { path: { id: of().id } }
    await answered(api.POST('/api/sites/{id}/simulated-station', { params, body }))
    await refresh()
    follow()
  }

  async function end({ id, name }: Probe) {
    const params = { path: { id: of().id, probe: id } }
    const done = await attempt(() =>
      of().kind === 'heap'
        ? answered(api.DELETE('/api/heaps/{id}/probes/{probe}', { params }))
        : answered(api.DELETE('/api/sites/{id}/probes/{probe}', { params })),
    )
    await refresh()
    if (done) slip.said({ text: t('probe.isEnded', { name }) })
  }

  async function takeOut({ id, name }: Probe) {
    const params = { path: { id: of().id, probe: id } }
    const done = await attempt(() =>
      of().kind === 'heap'
        ? answered(api.POST('/api/heaps/{id}/probes/{probe}/take-out', { params }))
        : answered(api.POST('/api/sites/{id}/probes/{probe}/take-out', { params })),
    )
    await refresh()
    if (done) slip.said({ text: t('probe.isOut', { name }) })
  }

  return { probes, add, playRod, playStation, end, takeOut, refresh }
}
