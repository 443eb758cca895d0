import { onScopeDispose, reactive } from 'vue'
import type { Lot } from '@/api/client'
import { useAttempt } from '@/kit/useAttempt'
import { useSay } from '@/words/useSay'
import { fieldsOf, useLotChanges, useStock } from './useStock'

/** How long the stepping must pause before it is written down, so that five taps are one change [ms]. */
const PAUSE_MS = 500

/** Amounts stepped in the stock but not answered for yet. They outlast the row that they were stepped in. */
export function useStepped() {
  const { lots } = useStock()
  const { change } = useLotChanges()
  const { attempt } = useAttempt()
  const { t } = useSay()
  const pending = reactive(new Map<string, number>())
  const timers = new Map<string, ReturnType<typeof setTimeout>>()
  const onTheirWay = new Set<string>()

  function step(id: string, amount: number) {
    pending.set(id, amount)
    clearTimeout(timers.get(id))
    timers.set(
      id,
      setTimeout(() => void write(id), PAUSE_MS),
    )
  }

  /** Whoever puts the phone away or goes on to another page does not wait for the pause. */
  function writeAll() {
    if (document.visibilityState !== 'hidden') return
    for (const [id, timer] of timers) {
      clearTimeout(timer)
      void write(id)
    }
  }
  document.addEventListener('visibilitychange', writeAll)
  onScopeDispose(() => document.removeEventListener('visibilitychange', writeAll))

  async function write(id: string) {
    timers.delete(id)
    const amount = pending.get(id)
    const current = lots.value?.find((one) => one.id === id)
    // What is on its way changes the version that the next one is told of.
    if (amount === undefined || !current || onTheirWay.has(id)) return
    onTheirWay.add(id)
    await attempt(
      () => change.mutateAsync({ lot: current, to: { ...fieldsOf(current), amount } }),
      t('lot.stale'),
    )
    onTheirWay.delete(id)
    if (pending.get(id) === amount) pending.delete(id)
    else if (!timers.has(id)) void write(id)
  }

  return { amountOf: ({ id, amount }: Lot) => pending.get(id) ?? amount, step }
}
