import { useToast } from 'primevue/usetoast'
import { ref, watch } from 'vue'

/** A slip at the foot of the page that says what was done and offers to undo it. */
export interface Slip {
  text: string
  undoLabel?: string
  undo?: () => void
}

/** Whether anything was said yet: until then what shows it is not fetched. */
export const isSaid = ref(false)
/** Whether what shows it is drawn. */
export const isDrawn = ref(false)

export function useSlip() {
  const toast = useToast()

  function show({ text, undoLabel, undo }: Slip, isError = false) {
    toast.removeAllGroups()
    toast.add({
      severity: isError ? 'error' : 'success',
      summary: text,
      detail: { undoLabel, undo },
      // Long enough to read twice and reach for the button.
      life: undo ? 10_000 : isError ? 8_000 : 4_000,
    })
  }

  function whenDrawn(say: () => void) {
    isSaid.value = true
    if (isDrawn.value) say()
    else watch(isDrawn, say, { once: true })
  }

  return {
    said: (slip: Slip) => whenDrawn(() => show(slip)),
    failed: (text: string) => whenDrawn(() => show({ text }, true)),
  }
}
