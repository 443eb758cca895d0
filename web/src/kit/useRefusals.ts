import { reactive } from 'vue'
import { useI18n } from 'vue-i18n'
import { atFields } from './refusals'

/**
 * What a form was refused, each reason at its field and the rest under `whole`.
 * `fieldOf` says which field of the form shows a path of the request; none if none does.
 */
export function useRefusals(stale: string, fieldOf: (path: string) => string | null = () => null) {
  const { t } = useI18n()
  const faults = reactive<Record<string, string>>({})

  function forget() {
    for (const field of Object.keys(faults)) delete faults[field]
  }

  /** Does something; what is refused of it is told. True if it was done. */
  async function tried(act: () => Promise<unknown>): Promise<boolean> {
    forget()
    try {
      await act()
      return true
    } catch (failure) {
      Object.assign(faults, atFields(failure, { noServer: t('app.noServer'), stale: t(stale) }, fieldOf))
      return false
    }
  }

  return { faults, forget, tried }
}
