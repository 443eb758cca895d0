import { computed, onBeforeUnmount, onMounted, type Ref, ref, watch } from 'vue'

const ON = ['ArrowRight', 'PageDown', ' ', 'Enter']
const BACK = ['ArrowLeft', 'PageUp', 'Backspace']

/** One step at a time, by the arrows, by what a presenter's clicker sends, or by a tap. */
export function useSteps(total: Ref<number>, leave: () => void) {
  const at = ref(0)
  const last = computed(() => Math.max(0, total.value - 1))
  const next = () => (at.value = Math.min(last.value, at.value + 1))
  const back = () => (at.value = Math.max(0, at.value - 1))
  watch(last, (now) => (at.value = Math.min(now, at.value)))

  function onKey(event: KeyboardEvent) {
    const target = event.target as HTMLElement | null
    const isTyping = target instanceof HTMLInputElement || target instanceof HTMLSelectElement
    if (event.key === 'Escape') return leave()
    if (isTyping || event.ctrlKey || event.metaKey || event.altKey) return
    // A button that has the focus does what it says.
    const isButton = target instanceof HTMLButtonElement || target instanceof HTMLAnchorElement
    if (isButton && (event.key === ' ' || event.key === 'Enter')) return
    if (ON.includes(event.key)) next()
    else if (BACK.includes(event.key)) back()
    else return
    event.preventDefault()
  }
  onMounted(() => window.addEventListener('keydown', onKey))
  onBeforeUnmount(() => window.removeEventListener('keydown', onKey))

  return { at, next, back }
}
