import { useToast } from 'primevue/usetoast'

/** A slip at the foot of the page that says what was done and offers to undo it. */
export interface Slip {
  text: string
  undoLabel?: string
  undo?: () => void
}

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

  return { said: (slip: Slip) => show(slip), failed: (text: string) => show({ text }, true) }
}
