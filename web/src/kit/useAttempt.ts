import { useSay } from '@/words/useSay'
import { type Removed, useLately } from './lately'
import { told } from './refusals'
import { useSlip } from './useSlip'

/** Does something with the server; what it refuses, or its silence, is said on a slip. */
export function useAttempt() {
  const { t } = useSay()
  const slip = useSlip()
  const lately = useLately()

  async function attempt(act: () => Promise<unknown>, stale = '') {
    try {
      await act()
      return true
    } catch (failure) {
      slip.failed(told(failure, { noServer: t('app.noServer'), stale }))
      return false
    }
  }

  /** Removes something, with an offer to bring it back, on the slip and afterwards. */
  async function undoable(
    text: string,
    act: () => Promise<unknown>,
    removed: Pick<Removed, 'what' | 'id'>,
    back = '',
  ) {
    if (!(await attempt(act))) return
    lately.note({ ...removed, text })
    slip.said({
      text,
      undoLabel: t('app.undo'),
      undo: () =>
        void attempt(() => lately.restore(removed)).then((done) => done && back && slip.said({ text: back })),
    })
  }

  return { attempt, undoable }
}
