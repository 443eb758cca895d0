import { answered, api, type Probe, type ProbeMade, type RodFault } from '@/api/client'
import { useChanged } from '@/api/keys'
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

/** What is done to the probes of a heap: work of the desk, that wants the farm. */
export function useProbes(heap: () => string) {
  const { t } = useSay()
  const { attempt } = useAttempt()
  const slip = useSlip()
  const refresh = useChanged('heap')
  const path = () => ({ id: heap() })

  async function add(name: string): Promise<ProbeMade> {
    const made = await answered(
      api.POST('/api/heaps/{id}/probes', { params: { path: path() }, body: { name } }),
    )
    await refresh()
    return made
  }

  async function play(rod: Rod): Promise<Probe> {
    const made = await answered(
      api.POST('/api/heaps/{id}/simulated-rod', { params: { path: path() }, body: rod }),
    )
    await refresh()
    return made
  }

  async function end({ id, name }: Probe) {
    const params = { path: { ...path(), probe: id } }
    const done = await attempt(() => answered(api.DELETE('/api/heaps/{id}/probes/{probe}', { params })))
    await refresh()
    if (done) slip.said({ text: t('probe.isEnded', { name }) })
  }

  async function takeOut({ id, name }: Probe) {
    const params = { path: { ...path(), probe: id } }
    const done = await attempt(() =>
      answered(api.POST('/api/heaps/{id}/probes/{probe}/take-out', { params })),
    )
    await refresh()
    if (done) slip.said({ text: t('probe.isOut', { name }) })
  }

  return { add, play, end, takeOut, refresh }
}
