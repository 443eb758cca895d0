/**
 * Whether everything typed in a form can be read; if not, the first that cannot is gone to,
 * and nothing is sent of what stood there before.
 */
export function isSound(form: HTMLElement | null | undefined): boolean {
  const odd = form?.querySelector<HTMLElement>('input[aria-invalid="true"][role="spinbutton"]')
  if (!odd) return true
  // Left and come back to: so it says what is wrong.
  odd.blur()
  odd.focus()
  odd.scrollIntoView?.({ block: 'center' })
  return false
}
