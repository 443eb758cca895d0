import { watch } from 'vue'

/**
 * A form that the back button or a stray tap closed keeps what was typed in it: opened again for the
 * same thing it goes on, for another it begins anew. `ended` is for what was sent, or put away on purpose.
 */
export function useHalfTyped(open: () => boolean, of: () => string, begin: () => void) {
  let left: string | null = null
  watch(
    open,
    (is) => {
      if (!is) return
      const now = of()
      if (now !== left) begin()
      left = now
    },
    { immediate: true },
  )
  return { ended: () => void (left = null) }
}

/** What a record's form is about: the same only as long as nobody changed it meanwhile. */
export const formOf = (record: { id: string; version: number } | null | undefined) =>
  record ? `${record.id} ${record.version}` : 'new'
