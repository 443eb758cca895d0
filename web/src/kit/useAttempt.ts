import { useSay } from '@/words/useSay'
import { told } from './refusals'
import { useSlip } from './useSlip'

/** Does something with the server; what it refuses, or its silence, is said on a slip. */
export function useAttempt() {
  const { t } = useSay()
  const slip = useSlip()

  async function attempt(act: () => Promise<unknown>, stale = '') {
    try {
      await act()
      return true
    } catch (failure) {
      slip.failed(told(failure, { noServer: t('app.noServer'), stale }))
      return false
    }
  }

  /** The same, with an offer to undo it. */
  async function undoable(
    text: string,
    act: () => Promise<unknown>,
    undo: () => Promise<unknown>,
    back = '',
  ) {
    if (!(await attempt(act))) return
    slip.said({
      text,
      undoLabel: t('app.undo'),
      undo: () => void attempt(undo).then((done) => done && back && slip.said({ text: back })),
    })
  }

  return { attempt, undoable }
}
