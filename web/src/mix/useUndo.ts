import { onBeforeUnmount, onMounted, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useDraft } from './draft'

/** Undo and redo by the keyboard; and what another window did to the bench is said, with its undo. */
export function useUndo(say: (text: string) => void) {
  const { t } = useI18n()
  const store = useDraft()

  function onKey(event: KeyboardEvent) {
    const isTyping =
      event.target instanceof HTMLInputElement &&
      event.target.type === 'text' &&
      !event.target.closest('.stepper')
    if (isTyping || !(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return
    event.preventDefault()
    if (event.shiftKey) store.redo()
    else store.undo()
  }
  onMounted(() => window.addEventListener('keydown', onKey))
  onBeforeUnmount(() => window.removeEventListener('keydown', onKey))

  watch(
    () => store.isFromElsewhere,
    (is) => {
      if (!is) return
      say(t('bench.elsewhere'))
      store.isFromElsewhere = false
    },
  )
}
