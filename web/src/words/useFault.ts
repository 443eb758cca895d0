import { useI18n } from 'vue-i18n'
import type { Fault } from '@/api/client'

/** Words of a fault that have words of their own. */
const TABLES: Record<string, string> = { kind: 'record', is: 'written', must_be: 'written' }

/** What is wrong with an input, in the words of the page: the same table as the server's. */
export function useFault() {
  const { t } = useI18n()
  return ({ code, params }: Pick<Fault, 'code' | 'params'>): string => {
    const words = Object.entries(params).map(([name, value]) => {
      const word = Array.isArray(value) ? value.join(', ') : String(value)
      return [name, name in TABLES ? t(`${TABLES[name]}.${word}`) : word] as const
    })
    return t(`fault.${code}`, Object.fromEntries(words))
  }
}
