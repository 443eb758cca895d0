const KEPT_AS = 'zymarch-device'

/** What this browser is called in the log: the same for as long as it keeps anything. */
export function device(): string {
  try {
    const kept = localStorage.getItem(KEPT_AS)
    if (kept) return kept
    const bytes = crypto.getRandomValues(new Uint8Array(4))
    const name = `browser-${[...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('')}`
    localStorage.setItem(KEPT_AS, name)
    return name
  } catch {
    return ''
  }
}
