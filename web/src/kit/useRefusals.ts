import { type InjectionKey, provide, reactive } from 'vue'
import { useI18n } from 'vue-i18n'
import { atFields } from './refusals'

/** What a form was refused, for its fields. */
export const FAULTS: InjectionKey<Record<string, string>> = Symbol('faults of a form')

/**
 * What a form was refused, each reason at its field and the rest under `whole`.
 * `fieldOf` says which field of the form shows a path of the request; none if none does.
 */
export function useRefusals(stale: string, fieldOf: (path: string) => string | null = () => null) {
  const { t } = useI18n()
  const faults = reactive<Record<string, string>>({})
  provide(FAULTS, faults)

  function forget() {
    for (const field of Object.keys(faults)) delete faults[field]
  }

  /** Tells what was refused, or that nothing was. */
  function tell(failure: unknown) {
    forget()
    if (failure)
      Object.assign(faults, atFields(failure, { noServer: t('app.noServer'), stale: t(stale) }, fieldOf))
  }

  /** Does something; what is refused of it is told. True if it was done. */
  async function tried(act: () => Promise<unknown>): Promise<boolean> {
    forget()
    try {
      await act()
      return true
    } catch (failure) {
      tell(failure)
      return false
    }
  }

  return { faults, forget, tell, tried }
}
