const KEPT_AS = 'zymarch-device'

let named: string | null = null

/** What this device is called in the log: as its person called it, else by what it says of itself. */
export function device(): string {
  if (named !== null) return named
  try {
    named = localStorage.getItem(KEPT_AS) || byItself(navigator.userAgent)
  } catch {
    named = byItself(navigator.userAgent)
  }
  return named
}

/** Calls this device by a name from now on. */
export function setDevice(name: string) {
  named = name.trim() || byItself(navigator.userAgent)
  try {
    localStorage.setItem(KEPT_AS, named)
  } catch {
    // A browser that keeps nothing: the name holds until the page is closed.
  }
}

const MACHINES = ['Android', 'iPhone', 'iPad', 'Windows', 'Macintosh', 'CrOS', 'Linux']
const BROWSERS = ['Edg', 'Firefox', 'SamsungBrowser', 'Chrome', 'Safari']
const PLAIN: Record<string, string> = {
  Macintosh: 'Mac',
  CrOS: 'Chromebook',
  Edg: 'Edge',
  SamsungBrowser: 'Samsung',
}

/** What a browser says of itself, in two words. */
export function byItself(agent: string): string {
  const found = [MACHINES, BROWSERS].map((names) => names.find((name) => agent.includes(name)))
  return found.flatMap((name) => (name ? [PLAIN[name] ?? name] : [])).join(', ')
}
